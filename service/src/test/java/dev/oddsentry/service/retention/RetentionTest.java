package dev.oddsentry.service.retention;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** What is over and old enough goes; what is open, marked or still to be told stays. */
class RetentionTest {
    private static RunningService service;
    private final LateSailings sailings = new LateSailings(service);
    private final String rule = "(select id from definition where kind = 'RULE' and name = '" + sailings.name + "')";

    @BeforeAll
    static void start() {
        service = RunningService.withItsOwnTime("--oddsentry.retention.checks=90", "--oddsentry.retention.messages=90");
    }

    @AfterAll
    static void end() {
        service.close();
    }

    private long count(String table, String which) {
        return service.countRecords("select count(*) from " + table + " where " + which);
    }

    private String why(String sailing) {
        return service.api()
                .get("/api/rules/" + sailings.name + "/explanation?key=" + sailing)
                .path("reason")
                .asString();
    }

    private void run() {
        service.bean(Retention.class).run();
    }

    private void pass(int days) {
        service.pass(Duration.ofDays(days));
    }

    /** SK-1 stays open; the others clear, and that is told. */
    private void threeOfWhichTwoClear() {
        sailings.late("SK-1", 20).late("SK-2", 20).late("SK-3", 20).active();
        service.api().check(sailings.name);
        RunningService.await("mail", () -> !service.mailTo(sailings.recipient).isEmpty());
        sailings.change("delete from sailing_table where sailing <> 'SK-1'");
        assertThat(service.api().check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        RunningService.await("mail", () -> service.mailTo(sailings.recipient).size() == 2);
    }

    @Test
    void clearedFindingsAreForgottenWithATraceAndComeBackAsNew() {
        threeOfWhichTwoClear();
        run();
        assertThat(count("finding", "rule_id = " + rule)).isEqualTo(3);
        pass(401);
        run();
        assertThat(count("finding", "rule_id = " + rule))
                .as("the open one stays")
                .isEqualTo(1);
        assertThat(why("SK-2")).startsWith("It opened on ").contains("cleared on ", "was forgotten on ");
        assertThat(why("SK-9")).startsWith("No check has found it.");
        sailings.late("SK-2", 30);
        service.api().check(sailings.name);
        RunningService.await("mail", () -> service.mailTo(sailings.recipient).size() == 3);
        pass(366);
        run();
        assertThat(count("forgotten", "rule_id = " + rule)).isZero();
    }

    @Test
    void handledAndUnreportedFindingsAreKept() {
        sailings.memory("memory: { key: [sailing], report: [new, cleared], absence: ages_out }");
        sailings.late("SK-1", 20).late("SK-2", 20).active();
        service.api().check(sailings.name);
        service.api()
                .post(
                        "/api/rules/" + sailings.name + "/handling",
                        Map.of(
                                "key",
                                List.of("SK-1"),
                                "kind",
                                "SNOOZE",
                                "note",
                                "the raft is in the yard",
                                "until",
                                "2099-01-01T00:00:00Z",
                                "withdraw",
                                false));
        sailings.change("delete from sailing_table");
        service.api().check(sailings.name);
        assertThat(count("finding", "state = 'AGED_OUT' and rule_id = " + rule)).isEqualTo(2);
        pass(401);
        run();
        assertThat(count("finding", "rule_id = " + rule)).as("the snoozed one").isEqualTo(1);
    }

    @Test
    void aRuleMayForgetSoonerWhatIsOutOfSight() {
        sailings.memory("memory: { key: [sailing], absence: ages_out, forget_after: 90 days }");
        sailings.late("SK-1", 20).active();
        service.api().check(sailings.name);
        sailings.change("delete from sailing_table");
        service.api().check(sailings.name);
        pass(91);
        run();
        assertThat(count("finding", "rule_id = " + rule)).isZero();
    }

    @Test
    void oldMessagesAndChecksGoAndWhatWasReportedOutlivesThem() {
        threeOfWhichTwoClear();
        pass(91);
        run();
        assertThat(count("message", "rule_id = " + rule)).isZero();
        assertThat(count("rule_check", "rule_id = " + rule))
                .as("the last one stays")
                .isEqualTo(1);
        assertThat(count("finding_event", "finding_id in (select id from finding where rule_id = " + rule + ")"))
                .isZero();
        assertThat(count("last_report", "finding_id in (select id from finding where rule_id = " + rule + ")"))
                .as("of those that moved since they were told")
                .isEqualTo(2);
        assertThat(count("finding", "opening_reported and opening_message is null and rule_id = " + rule))
                .isEqualTo(1);
        assertThat(service.api().check(sailings.name).path("state").asString()).isEqualTo("QUIET");
    }

    @Test
    void aMessageThatIsStillOnItsWayStays() {
        sailings.late("SK-1", 20).active();
        service.api().post("/api/holds", Map.of("rule", sailings.name, "reason", "the harbour office is closed"));
        assertThat(service.api().check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        pass(91);
        run();
        assertThat(count("message", "rule_id = " + rule)).isEqualTo(1);
    }
}
