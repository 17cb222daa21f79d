package dev.oddsentry.demo;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.testkit.ThrowAwayPostgres;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** The planted oddities are as many as the generator says, so that other tests and people know the right answer. */
class FerryDataTest {
    private static final LocalDate LAST_DAY = LocalDate.of(2026, 11, 24);
    private static final String LATE_WITHOUT_REASON =
            "select count(*) from sailing where delay_reason is null and status is distinct from 'training'"
                    + " and actual_departure > planned_departure + interval '15 minutes'";

    private static long count(Connection connection, String sql) throws SQLException {
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getLong(1);
        }
    }

    @Test
    void plantsWhatItSaysAndADayPasses() throws SQLException {
        try (var postgres = ThrowAwayPostgres.start();
                var connection =
                        DriverManager.getConnection(postgres.jdbcUrl("postgres"), ThrowAwayPostgres.USER, "")) {
            var ferry = new FerryData(connection);
            ferry.loadUpTo(LAST_DAY);
            int planted = IntStream.range(0, FerryData.DAYS_BACK)
                    .map(Timetable::lateWithoutReason)
                    .sum();
            assertThat(count(connection, LATE_WITHOUT_REASON)).isEqualTo(planted);
            assertThat(count(connection, "select count(*) from sailing"))
                    .isEqualTo((FerryData.DAYS_BACK + FerryData.DAYS_AHEAD)
                            * Network.ROUTES.size()
                            * Timetable.SAILINGS_A_ROUTE);
            assertThat(count(connection, "select count(*) from sailing where status is null"))
                    .isEqualTo(FerryData.DAYS_BACK / 3);
            assertThat(count(connection, "select count(*) from crew_certificate where number is null"))
                    .isEqualTo(Records.CERTIFICATES_WITHOUT_NUMBER);
            assertThat(count(connection, "select count(*) from gate_upload where state = 'running'"))
                    .isEqualTo(1);
            assertThat(count(connection, "select count(*) from terminal where duty_manager_address is null"))
                    .isEqualTo(1);

            assertThat(ferry.aDayPasses()).isEqualTo(LAST_DAY.plusDays(1));
            assertThat(count(connection, "select count(*) from sailing where delay_reason = 'entered afterwards'"))
                    .isPositive();
            assertThat(count(
                            connection,
                            LATE_WITHOUT_REASON
                                    + " and (planned_departure at time zone 'Europe/Oslo')::date = '2026-11-25'"))
                    .isEqualTo(Timetable.lateWithoutReason(FerryData.DAYS_BACK));
            assertThat(
                            count(
                                    connection,
                                    "select count(*) from (select number, planned_departure from sailing group by 1, 2 having count(*) > 1) twice"))
                    .isZero();
        }
    }
}
