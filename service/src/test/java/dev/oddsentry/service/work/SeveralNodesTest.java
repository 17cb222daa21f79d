package dev.oddsentry.service.work;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.sql.SQLException;
import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Two service processes' worth of nodes on one database. */
class SeveralNodesTest {
    private final RunningService service = RunningService.get();

    private long count(String sql) {
        try (var connection = service.connect("records");
                var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getLong(1);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void scheduledChecksHappenOnTimeOnEitherNodeAndNeverTwice() {
        var sailings = new LateSailings(service)
                .schedule("schedule: { start: 2026-01-01T00:00, recur: FREQ=SECONDLY }")
                .late("SK-0", 20)
                .active();
        try (var second = service.startNode("second", service.records())) {
            String ofRule =
                    " from rule_check c join definition d on d.id = c.rule_id where d.name = '" + sailings.name + "'";
            for (int i = 1; i <= 12; i++) {
                sailings.late("SK-" + i, 20);
                long done = count("select count(*)" + ofRule + " and c.state in ('QUIET', 'FIRED')");
                RunningService.await(
                        "the next check",
                        () -> count("select count(*)" + ofRule + " and c.state in ('QUIET', 'FIRED')") > done);
            }
            service.api().post("/api/rules/" + sailings.name + "/pause", "");
            RunningService.await(
                    "all ended", () -> count("select count(*)" + ofRule + " and c.state = 'RUNNING'") == 0);
            assertThat(count("select count(*) - count(distinct c.slot)" + ofRule))
                    .as("a slot twice")
                    .isZero();
            assertThat(count("select count(*)" + ofRule + " and c.started_at - c.slot > interval '10 seconds'"))
                    .as("late ones")
                    .isZero();
            assertThat(second.isRunning()).isTrue();
        }
        String reported =
                " from finding_event e join finding f on f.id = e.finding_id join definition d on d.id = f.rule_id where d.name = '"
                        + sailings.name + "' and coalesce(e.at_opening, e.kind) = 'REPORTED'";
        assertThat(count("select count(*)" + reported))
                .as("each finding reported once")
                .isEqualTo(count("select count(distinct e.finding_id)" + reported));
        RunningService.await(
                "mail",
                Duration.ofSeconds(20),
                () -> service.mailTo(sailings.recipient).size()
                        == count("select count(distinct e.message_id)" + reported));
    }

    @Test
    void aCheckThatADeadNodeLeftRunningIsTakenUpBeforeLaterSlots() {
        var sailings = new LateSailings(service)
                .schedule("schedule: { start: 2026-01-01T00:00, recur: FREQ=SECONDLY }")
                .late("SK-1", 20)
                .active();
        service.api().post("/api/rules/" + sailings.name + "/pause", "");
        String rule = "(select id from definition where kind = 'RULE' and name = '" + sailings.name + "')";
        RunningService.await(
                "rest",
                () -> count("select count(*) from rule_check where state = 'RUNNING' and rule_id = " + rule) == 0);
        service.execute(
                "records",
                "insert into rule_check (id, rule_id, slot, origin, state, attempt, slots_covered, node, started_at)"
                        + " values (gen_random_uuid(), " + rule
                        + ", now() + interval '10 milliseconds', 'SCHEDULED', 'RUNNING', 1, 1, 'dead', now())");
        service.api().post("/api/rules/" + sailings.name + "/activate", "");
        String ended = "select count(*) from rule_check where state in ('QUIET', 'FIRED') and rule_id = " + rule;
        RunningService.await("the one left behind", () -> count(ended + " and node <> 'dead' and attempt = 2") == 1);
        long done = count(ended);
        RunningService.await("later slots", () -> count(ended) > done);
        service.api().post("/api/rules/" + sailings.name + "/pause", "");
    }

    @Test
    void manyAsksAtOnceMakeOneCheckAtATimeAndOneMail() throws Exception {
        var sailings = new LateSailings(service).late("SK-1", 20).active();
        try (var people = Executors.newVirtualThreadPerTaskExecutor()) {
            var asks = IntStream.range(0, 20)
                    .<Callable<String>>mapToObj(_ -> () ->
                            service.api().check(sailings.name).path("state").asString())
                    .toList();
            for (var answer : people.invokeAll(asks)) assertThat(answer.get()).isIn("QUIET", "FIRED");
        }
        RunningService.await("mail", () -> !service.mailTo(sailings.recipient).isEmpty());
        assertThat(count("select count(*) from message m join definition d on d.id = m.rule_id where d.name = '"
                        + sailings.name + "'"))
                .isEqualTo(1);
    }

    @Test
    void twoSavesAtOnceBothBecomeRevisions() throws Exception {
        var sailings = new LateSailings(service).active();
        try (var people = Executors.newVirtualThreadPerTaskExecutor()) {
            var saves = IntStream.range(20, 28)
                    .<Callable<Integer>>mapToObj(i -> () -> service.api()
                            .pushAnswer(sailings.rule().replace("> 15", "> " + i))
                            .status())
                    .toList();
            for (var answer : people.invokeAll(saves)) assertThat(answer.get()).isEqualTo(200);
        }
        assertThat(count("select revision from definition where kind = 'RULE' and name = '" + sailings.name + "'"))
                .isEqualTo(9);
    }

    @Test
    void aRuleSavedWhileItsCheckRunsMakesThatAttemptStaleAndItRunsAgain() throws Exception {
        var sailings = new LateSailings(service).late("SK-1", 20);
        service.api()
                .push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name
                        + "\", lateral (select pg_sleep(2.5)) s"));
        service.api().push(sailings.rule());
        service.api().post("/api/rules/" + sailings.name + "/activate", "");
        try (var people = Executors.newVirtualThreadPerTaskExecutor()) {
            var check = people.submit(() -> service.api().check(sailings.name));
            Thread.sleep(400);
            service.api().push(sailings.rule().replace("> 15", "> 25"));
            assertThat(check.get().path("state").asString())
                    .as("judged by the new revision")
                    .isEqualTo("QUIET");
            assertThat(check.get().path("attempt").asInt()).isEqualTo(2);
            assertThat(check.get().path("exceptions").asInt()).isZero();
        }
    }
}
