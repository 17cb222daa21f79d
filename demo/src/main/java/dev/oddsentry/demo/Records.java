package dev.oddsentry.demo;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/** Everything but sailings: bunkering, safety gear, certificates, gate uploads and refunds, each with its planted oddities. */
final class Records {
    static final int CERTIFICATES_WITHOUT_NUMBER = 3;
    private static final int THIRSTY_VESSEL = 5;
    private static final int CERTIFICATES = 90;
    private static final List<String> KINDS = List.of("life-jacket box", "life-raft", "fire extinguisher");
    private static final List<String> ROLES = List.of("master", "mate", "engineer", "deckhand");

    private final Connection connection;

    Records(Connection connection) {
        this.connection = connection;
    }

    /** What does not grow day by day: safety gear due in 30 days, overdue or without a date, and certificates. */
    void loadStanding(LocalDate today) throws SQLException {
        var random = new Random(7);
        for (int i = 1; i <= 240; i++) {
            LocalDate next = switch (i % 40) {
                case 0 -> null;
                case 1 -> today.minusDays(3 + i % 9);
                case 2, 3, 4 -> today.plusDays(5 + i % 24);
                default -> today.plusDays(60 + random.nextInt(280));
            };
            LocalDate last = next == null ? today.minusDays(200) : next.minusYears(1);
            boolean ashore = i % 3 == 0;
            insert(
                    "insert into safety_item (serial, kind, terminal_id, vessel_id, last_inspection, next_inspection) values (?, ?, ?, ?, ?, ?)",
                    "SG-%05d".formatted(1000 + i),
                    KINDS.get(i % KINDS.size()),
                    ashore ? i % Network.TERMINALS.size() + 1 : null,
                    ashore ? null : i % Network.VESSELS.size() + 1,
                    last,
                    next);
        }
        for (int i = 1; i <= CERTIFICATES; i++) {
            boolean missing = i % (CERTIFICATES / CERTIFICATES_WITHOUT_NUMBER) == 0;
            insert(
                    "insert into crew_certificate (crew_member, role, number, expires_on) values (?, ?, ?, ?)",
                    "Crew member " + i,
                    ROLES.get(i % ROLES.size()),
                    missing ? null : "%06d".formatted(70_000 + i * 37),
                    i % 30 == 1 ? today.minusDays(i) : today.plusDays(40 + random.nextInt(700)));
        }
    }

    void ofDay(LocalDate date, int day) throws SQLException {
        var random = new Random(day * 31L + 5);
        bunkering(date, day, random);
        gateUploads(date, day, random);
        refunds(date, day, random);
    }

    /** One vessel's litres per mile drift upwards over weeks, then jump. */
    private void bunkering(LocalDate date, int day, Random random) throws SQLException {
        for (int vessel = 1; vessel <= Network.VESSELS.size(); vessel++) {
            if ((day + vessel) % 3 != 0) continue;
            double miles = 300 + random.nextInt(120);
            double perMile = 38 + vessel + random.nextDouble();
            if (vessel == THIRSTY_VESSEL) perMile += day * 0.05 + (day > 114 ? 9 : 0);
            double litres = Math.round(miles * perMile);
            insert(
                    "insert into bunkering (vessel_id, bunkered_at, litres_ordered, litres_delivered, miles_since) values (?, ?, ?, ?, ?)",
                    vessel,
                    at(date, 22, vessel),
                    litres,
                    litres,
                    miles);
        }
    }

    /** Some fail again and again, on day 117 one never ends, on every tenth day one takes no row. */
    private void gateUploads(LocalDate date, int day, Random random) throws SQLException {
        for (int terminal = 1; terminal <= Network.TERMINALS.size(); terminal++) {
            for (int hour = 6; hour < 22; hour += 4) {
                boolean fails = terminal == 4 && day % 9 == 8;
                boolean neverEnds = day == 117 && terminal == 2 && hour == 14;
                boolean empty = day % 10 == 9 && terminal == 6 && hour == 10;
                int rows = empty || fails ? 0 : 40 + random.nextInt(400);
                String state = neverEnds ? "running" : fails ? "failed" : "done";
                insert(
                        "insert into gate_upload (terminal_id, gate, started_at, ended_at, rows_taken, rows_refused, state, message)"
                                + " values (?, ?, ?, ?, ?, ?, ?, ?)",
                        terminal,
                        "gate " + (hour / 4),
                        at(date, hour, terminal),
                        neverEnds ? null : at(date, hour, terminal + 5),
                        neverEnds ? null : rows,
                        neverEnds ? null : random.nextInt(3),
                        state,
                        fails ? "clock of the gate is off" : null);
            }
        }
    }

    /** The last month but one is well over the usual. */
    private void refunds(LocalDate date, int day, Random random) throws SQLException {
        boolean costlyMonth = day >= 60 && day < 90;
        for (int route = 1; route <= Network.ROUTES.size(); route++) {
            double amount = (20 + random.nextInt(180)) * (costlyMonth ? 2.4 : 1);
            insert("insert into refund (day, route_id, amount) values (?, ?, ?)", date, route, amount);
        }
    }

    private static OffsetDateTime at(LocalDate date, int hour, int minute) {
        return date.atTime(hour, minute).atZone(Demo.ZONE).toOffsetDateTime();
    }

    private void insert(String sql, @Nullable Object... values) throws SQLException {
        try (var statement = connection.prepareStatement(sql)) {
            FerryData.bind(statement, values);
            statement.executeUpdate();
        }
    }
}
