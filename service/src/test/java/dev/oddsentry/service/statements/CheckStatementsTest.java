package dev.oddsentry.service.statements;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Whether silence meant that there was nothing to report, through the whole service. */
class CheckStatementsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);

    private JsonNode statement() {
        return api.get("/api/statements?rule=" + sailings.name)
                .path("statements")
                .path(0);
    }

    private String sentences() {
        return statement()
                .path("sentences")
                .valueStream()
                .map(JsonNode::asString)
                .collect(Collectors.joining(" "));
    }

    /** Once the mail server's answers are kept too. */
    private void awaitComplete() {
        RunningService.await("complete", () -> statement().path("complete").asBoolean());
    }

    private void handle(String sailing, String kind) {
        api.post(
                "/api/rules/" + sailings.name + "/handling",
                Map.of(
                        "key",
                        List.of(sailing),
                        "kind",
                        kind,
                        "note",
                        "known to the harbour",
                        "until",
                        "2099-01-01T00:00:00Z",
                        "withdraw",
                        false));
    }

    private void vanish() {
        sailings.change("alter table sailing_table rename to \"" + sailings.name + "-away\"");
    }

    private void comeBack() {
        service.ferry("alter table \"" + sailings.name + "-away\" rename to \"" + sailings.name + "\"");
    }

    @Test
    void ruleThatWasNeverCheckedSaysNothing() {
        sailings.active();
        assertThat(statement().path("complete").asBoolean()).isFalse();
        assertThat(sentences()).startsWith("Not checked, so silence says nothing. No update was reported.");
    }

    @Test
    void completeChecksMakeSilenceATrustworthyAnswer() {
        sailings.late("SK-1", 50).late("SK-2", 20).active();
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        sailings.late("SK-3", 20);
        api.check(sailings.name);
        mails.sent(sailings.recipient, 2);
        awaitComplete();
        assertThat(sentences())
                .isEqualTo("Every check was complete, so silence meant that there was nothing to report."
                        + " Checked 2 times. The checks read 2 to 3 rows each."
                        + " 3 updates were reported in 2 messages. Open now: 1 critical, 2 warnings.");
    }

    @Test
    void failedCheckLeavesAGapUntilTheNextGoodOne() {
        sailings.late("SK-1", 50).active();
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        vanish();
        api.check(sailings.name);
        assertThat(statement().path("complete").asBoolean()).isFalse();
        assertThat(sentences()).contains("Since ", "One check failed.");
        comeBack();
        api.check(sailings.name);
        assertThat(statement().path("gaps")).hasSize(1);
        assertThat(sentences()).startsWith("Between ").contains("silence does not mean that there was nothing");
    }

    @Test
    void saysWhatWasNotReportedAndWhy() {
        sailings.memory(
                "memory: { key: [sailing], report: [new, worsened, changed], watch: [delay_min], absence: clears }");
        sailings.late("SK-1", 20).late("SK-2", 20).late("SK-3", 20).active();
        api.push(sailings.rule().replace("delivery: {", "delivery: { send_from: critical, "));
        api.check(sailings.name);
        assertThat(sentences()).contains("Updates not reported: 3 less severe than the rule sends.");
        handle("SK-1", "SNOOZE");
        handle("SK-2", "ACCEPT");
        assertThat(sentences())
                .contains("Updates not reported: 1 snoozed, 1 accepted, 1 less severe than the rule sends.")
                .contains("Open now: 3 warnings; of these 1 snoozed, 1 accepted.");
    }

    @Test
    void pausedRuleSaysNothingSinceItsLastCheck() {
        sailings.active();
        api.check(sailings.name);
        assertThat(statement().path("complete").asBoolean()).isTrue();
        api.post("/api/rules/" + sailings.name + "/pause", "");
        assertThat(statement().path("complete").asBoolean()).isFalse();
        assertThat(sentences()).startsWith("The rule is paused and is not checked. Since ");
    }

    @Test
    void mailOnHoldIsNoSilence() {
        sailings.late("SK-1", 50).active();
        api.post("/api/holds", Map.of("rule", sailings.name, "reason", "the timetable is wrong"));
        api.check(sailings.name);
        assertThat(statement().path("complete").asBoolean()).isFalse();
        assertThat(sentences())
                .startsWith("Not everything could be checked or delivered")
                .contains("One message is on hold or not sent yet.");
    }

    @Test
    void rowsThatCannotBeEvaluatedAreSaid() {
        sailings.late("SK-1", 50).active();
        sailings.change("insert into sailing_table values ('SK-2', null, null)");
        api.check(sailings.name);
        assertThat(statement().path("complete").asBoolean()).isFalse();
        assertThat(sentences()).contains("Up to one row could not be evaluated.");
    }

    @Test
    void onlyTheTimesThatAreAskedForCount() {
        sailings.late("SK-1", 50).active();
        api.check(sailings.name);
        var before =
                api.get("/api/statements?rule=" + sailings.name + "&from=2020-01-01T00:00:00Z&to=2020-02-01T00:00:00Z");
        assertThat(before.path("statements").path(0).path("checks").path("good").asInt())
                .isZero();
        assertThat(api.send("GET", "/api/statements?from=2020-02-01T00:00:00Z&to=2020-01-01T00:00:00Z", null, Map.of())
                        .status())
                .isEqualTo(422);
        assertThat(api.send("GET", "/api/statements?rule=nowhere", null, Map.of())
                        .status())
                .isEqualTo(404);
    }

    @Test
    void roundUpStatesItEvenWithoutUpdates() {
        sailings.active();
        String lead = "lead-" + sailings.name + "@skerryline.example";
        String document = """
                kind: round-up
                name: %s
                title: The month
                owner: Traffic reporting
                zone: Europe/Oslo
                rules: [%s]
                to: [%s]
                statement: only
                schedule: { start: 2026-01-01T08:00, recur: FREQ=MONTHLY }
                """.formatted(sailings.name, sailings.name, lead);
        api.push(document);
        sailings.late("SK-1", 50);
        api.check(sailings.name);
        awaitComplete();
        assertThat(api.post("/api/round-ups/" + sailings.name + "/send", "")
                        .path("message")
                        .isNull())
                .isFalse();
        mails.sent(lead, 1);
        assertThat(mails.subjects(lead)).containsExactly("Nothing to report, all checks complete: The month");
        assertThat(mails.lastText(lead))
                .contains("One update was reported in one message.")
                .as("it reports no updates")
                .doesNotContain("SK-1");
        var refused = api.send(
                "PUT",
                "/api/definitions",
                document.replace("statement: only", "statement: only\nsend_immediately: critical"),
                Map.of("Content-Type", "application/yaml"));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("remove send_immediately, or write statement: with_updates");
    }
}
