package dev.oddsentry.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Loads the ferry company's data: 120 days back and 60 days of timetable ahead, made with a fixed seed relative to the day it is
 * loaded, so that the planted oddities are the same each time.
 */
final class FerryData {
    static final int DAYS_BACK = 120;
    static final int DAYS_AHEAD = 60;

    private final Connection connection;

    FerryData(Connection connection) {
        this.connection = connection;
    }

    /** Fills an empty database with everything up to and including {@code lastDay}, in one transaction. */
    void loadUpTo(LocalDate lastDay) throws SQLException {
        connection.setAutoCommit(false);
        try (var statement = connection.createStatement()) {
            statement.execute(script());
        }
        loadNetwork();
        LocalDate firstDay = lastDay.minusDays(DAYS_BACK - 1);
        var timetable = new Timetable(connection);
        var records = new Records(connection);
        records.loadStanding(lastDay);
        for (int day = 0; day < DAYS_BACK; day++) {
            timetable.sailed(firstDay.plusDays(day), day);
            records.ofDay(firstDay.plusDays(day), day);
        }
        for (int day = 0; day < DAYS_AHEAD; day++) timetable.planned(lastDay.plusDays(day + 1), DAYS_BACK + day);
        update("insert into data_days values (?, ?)", firstDay, lastDay);
        connection.commit();
    }

    /** Adds the next day: it sails, some old oddities are put right, one gets worse. */
    LocalDate aDayPasses() throws SQLException {
        connection.setAutoCommit(false);
        LocalDate firstDay;
        LocalDate day;
        try (var statement = connection.createStatement();
                var rows = statement.executeQuery("select first_day, last_day + 1 from data_days for update")) {
            rows.next();
            firstDay = rows.getObject(1, LocalDate.class);
            day = rows.getObject(2, LocalDate.class);
        }
        int number = Math.toIntExact(day.toEpochDay() - firstDay.toEpochDay());
        var timetable = new Timetable(connection);
        update(
                "delete from sailing where status is not distinct from 'planned' and (planned_departure at time zone 'Europe/Oslo')::date = ?",
                day);
        timetable.putRight(day);
        timetable.sailed(day, number);
        timetable.planned(day.plusDays(DAYS_AHEAD), number + DAYS_AHEAD);
        new Records(connection).ofDay(day, number);
        update("update data_days set last_day = ?", day);
        connection.commit();
        return day;
    }

    private static String script() {
        try (var sql = Objects.requireNonNull(FerryData.class.getResourceAsStream("ferry.sql"))) {
            return new String(sql.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void loadNetwork() throws SQLException {
        int id = 0;
        for (var terminal : Network.TERMINALS) {
            String address = terminal.hasAddress() ? Network.addressOf(terminal) : null;
            update("insert into terminal values (?, ?, ?, ?)", ++id, terminal.name(), terminal.dutyManager(), address);
        }
        id = 0;
        for (var vessel : Network.VESSELS)
            update("insert into vessel values (?, ?, ?)", ++id, vessel.name(), vessel.seats());
        id = 0;
        for (var route : Network.ROUTES) {
            update(
                    "insert into route values (?, ?, ?, ?, ?)",
                    ++id,
                    Network.routeName(route),
                    route.from() + 1,
                    route.to() + 1,
                    route.miles());
        }
    }

    private void update(String sql, @Nullable Object... values) throws SQLException {
        try (var statement = connection.prepareStatement(sql)) {
            bind(statement, values);
            statement.executeUpdate();
        }
    }

    static void bind(PreparedStatement statement, @Nullable Object... values) throws SQLException {
        for (int i = 0; i < values.length; i++) statement.setObject(i + 1, values[i]);
    }
}
