package dev.oddsentry.demo;

import java.sql.Connection;
import java.sql.SQLException;
import java.time.LocalDate;
import java.time.LocalTime;
import java.time.OffsetDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.jspecify.annotations.Nullable;

/**
 * Sailings. Planted each day: {@link #lateWithoutReason} of them late without a reason, on every second day one by more than 45
 * minutes; on every third day a late one without a status; heads that differ from tickets; on day 115 no heads counted at Ternvik.
 */
final class Timetable {
    static final int SAILINGS_A_ROUTE = 9;
    private static final int DAY_WITHOUT_HEADS = 115;
    private static final int ROUTE_FROM_TERNVIK = 5;
    private static final List<String> REASONS =
            List.of("fog", "waiting for a train", "engine check", "full car deck", "strong wind");
    private static final String INSERT =
            "insert into sailing (number, route_id, vessel_id, planned_departure, actual_departure, tickets_sold, heads_counted,"
                    + " status, delay_reason) values (?, ?, ?, ?, ?, ?, ?, ?, ?)";

    private final Connection connection;

    Timetable(Connection connection) {
        this.connection = connection;
    }

    /** How many sailings of a day are late without a reason. */
    static int lateWithoutReason(int day) {
        return 2 + day % 3;
    }

    private record Trip(int route, int departure, int tickets, int vessel, OffsetDateTime planned) {
        String number() {
            return "SK-" + (route * 40 + 100 + departure);
        }
    }

    private static List<Trip> trips(LocalDate date, Random random) {
        var trips = new ArrayList<Trip>();
        for (int route = 1; route <= Network.ROUTES.size(); route++) {
            for (int departure = 0; departure < SAILINGS_A_ROUTE; departure++) {
                int vessel = (route + departure) % Network.VESSELS.size() + 1;
                int tickets =
                        10 + random.nextInt(Network.VESSELS.get(vessel - 1).seats() - 10);
                LocalTime time = LocalTime.of(6, (route * 7) % 60).plusMinutes(105L * departure);
                trips.add(new Trip(
                        route,
                        departure,
                        tickets,
                        vessel,
                        date.atTime(time).atZone(Demo.ZONE).toOffsetDateTime()));
            }
        }
        return trips;
    }

    void planned(LocalDate date, int day) throws SQLException {
        try (var insert = connection.prepareStatement(INSERT)) {
            for (Trip trip : trips(date, new Random(day))) {
                FerryData.bind(
                        insert,
                        trip.number(),
                        trip.route,
                        trip.vessel,
                        trip.planned,
                        null,
                        trip.tickets,
                        null,
                        "planned",
                        null);
                insert.addBatch();
            }
            insert.executeBatch();
        }
    }

    void sailed(LocalDate date, int day) throws SQLException {
        var random = new Random(day);
        var trips = trips(date, random);
        try (var insert = connection.prepareStatement(INSERT)) {
            for (int i = 0; i < trips.size(); i++) {
                Trip trip = trips.get(i);
                var outcome = outcome(i, trips.size(), day, random);
                FerryData.bind(
                        insert,
                        trip.number(),
                        trip.route,
                        trip.vessel,
                        trip.planned,
                        outcome.late == null ? null : trip.planned.plus(outcome.late, ChronoUnit.MINUTES),
                        trip.tickets,
                        heads(trip, outcome, day, random),
                        outcome.status,
                        outcome.reason);
                insert.addBatch();
            }
            insert.executeBatch();
        }
    }

    private record Outcome(
            @Nullable Integer late,
            @Nullable String status,
            @Nullable String reason) {}

    private static Outcome outcome(int index, int trips, int day, Random random) {
        int planted = lateWithoutReason(day);
        int stride = trips / planted;
        boolean plantedHere = index % stride == (day * 5) % stride && index / stride < planted;
        if (plantedHere) {
            boolean first = index / stride == 0;
            int late = first && day % 2 == 0 ? 46 + random.nextInt(40) : 16 + random.nextInt(27);
            String status = !first || day % 3 != 0 ? "sailed" : null;
            return new Outcome(late, status, null);
        }
        int luck = random.nextInt(100);
        if (luck < 2) return new Outcome(null, "cancelled", "strong wind");
        if (luck < 3) return new Outcome(20 + random.nextInt(30), "training", null);
        if (luck < 9)
            return new Outcome(16 + random.nextInt(60), "sailed", REASONS.get(random.nextInt(REASONS.size())));
        return new Outcome(random.nextInt(14), "sailed", null);
    }

    private static @Nullable Integer heads(Trip trip, Outcome outcome, int day, Random random) {
        if (outcome.late == null) return null;
        if (day == DAY_WITHOUT_HEADS && trip.route == ROUTE_FROM_TERNVIK) return null;
        return random.nextInt(40) == 0 ? trip.tickets - 1 - random.nextInt(8) : trip.tickets;
    }

    /** Someone enters the reason of every third late sailing of the days before, and the clock of one is corrected upwards. */
    void putRight(LocalDate day) throws SQLException {
        try (var statement = connection.prepareStatement(
                "update sailing set delay_reason = 'entered afterwards' where delay_reason is null"
                        + " and actual_departure > planned_departure + interval '15 minutes' and sailing_id % 3 = 0 and status = 'sailed'"
                        + " and planned_departure > ?::date - 7")) {
            FerryData.bind(statement, day);
            statement.executeUpdate();
        }
        try (var statement = connection.prepareStatement(
                "update sailing set actual_departure = planned_departure + interval '71 minutes'"
                        + " where sailing_id = (select min(sailing_id) from sailing where delay_reason is null and status = 'sailed'"
                        + " and actual_departure between planned_departure + interval '16 minutes' and planned_departure + interval '44 minutes'"
                        + " and planned_departure > ?::date - 3)")) {
            FerryData.bind(statement, day);
            statement.executeUpdate();
        }
    }
}
