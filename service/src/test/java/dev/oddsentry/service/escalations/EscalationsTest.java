package dev.oddsentry.service.escalations;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Test;

/** Findings that nobody has taken within a time of being reported go to others, once. */
class EscalationsTest {
    private static final RunningService service = RunningService.withItsOwnTime();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String lead = "lead-" + sailings.recipient;

    @AfterAll
    static void end() {
        service.close();
    }

    private void active(String more, String after) {
        sailings.saved();
        api.push(sailings.rule()
                .replace(
                        "delivery: { to: [" + sailings.recipient + "] }",
                        "delivery: { to: [" + sailings.recipient + "], escalate: { after: " + after + ", to: [" + lead
                                + "] " + more + " } }"));
        api.postAnswer("/api/rules/" + sailings.name + "/activate", "");
    }

    private void anHourPasses() {
        RunningService.await(
                "a first look",
                () -> service.countRecords(
                                "select count(*) from escalation where rule_id = (select id from definition where name = '"
                                        + sailings.name + "' and kind = 'RULE')")
                        == 1);
        service.pass(Duration.ofHours(1));
    }

    /** What has been due by now has been passed on, or never will be. */
    private void afterAnotherLook() {
        long before = looks();
        RunningService.await("another look", () -> looks() > before + 1);
    }

    private long looks() {
        return service.countRecords("select version from scheduled_tasks where task_name = 'escalations'");
    }

    private String finding(String sailing) {
        return api.get("/api/rules/" + sailings.name + "/findings")
                .path("findings")
                .valueStream()
                .filter(each -> each.toString().contains(sailing))
                .findFirst()
                .orElseThrow()
                .path("id")
                .toString();
    }

    private void take(String sailing, boolean withdraw) {
        api.post(
                "/api/rules/" + sailings.name + "/handling",
                Map.of("finding", finding(sailing), "kind", "TAKE", "note", "mine", "withdraw", withdraw));
    }

    @Test
    void whatNobodyTookIsPassedOnOnceAndWhatIsTakenIsNot() {
        sailings.late("SK-1", 60).late("SK-2", 60).late("SK-3", 20);
        active(", severity: critical", "1 hour");
        api.check(sailings.name);
        take("SK-2", false);
        anHourPasses();
        mails.sent(lead, 1);
        assertThat(mails.subjects(lead))
                .containsExactly("Escalated: Late sailings of " + sailings.name + " (1 critical)");
        assertThat(mails.lastText(lead))
                .contains(
                        "SK-1", "nobody has taken, snoozed or accepted these findings", "/findings/" + finding("SK-1"))
                .doesNotContain("SK-2")
                .doesNotContain("SK-3");
        api.check(sailings.name);
        afterAnotherLook();
        mails.sent(lead, 1);
        assertThat(api.get("/api/rules/" + sailings.name + "/explanation?finding=" + finding("SK-1"))
                        .path("events")
                        .toString())
                .contains("escalated, because nobody had taken it, in", "to " + lead + " (sent)");
        take("SK-2", true);
        mails.sent(lead, 2);
        assertThat(mails.lastText(lead)).as("its taker gave it back").contains("SK-2");
        mails.sent(sailings.recipient, 1);
    }

    @Test
    void clearedFindingIsNotEscalatedAndAReturnedOneIsAgain() {
        sailings.late("SK-1", 20);
        active("", "1 hour");
        api.check(sailings.name);
        sailings.change("update sailing_table set delay_min = 1");
        api.check(sailings.name);
        anHourPasses();
        afterAnotherLook();
        assertThat(service.mailTo(lead)).isEmpty();
        sailings.change("update sailing_table set delay_min = 30");
        api.check(sailings.name);
        anHourPasses();
        mails.sent(lead, 1);
        sailings.change("update sailing_table set delay_min = 1");
        api.check(sailings.name);
        sailings.change("update sailing_table set delay_min = 30");
        api.check(sailings.name);
        anHourPasses();
        mails.sent(lead, 2);
    }

    @Test
    void findingsReportedBeforeEscalationWasAddedAreNotEscalated() {
        sailings.late("SK-1", 20).active();
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        service.pass(Duration.ofHours(2));
        active("", "1 hour");
        sailings.late("SK-2", 20);
        api.check(sailings.name);
        anHourPasses();
        mails.sent(lead, 1);
        assertThat(mails.lastText(lead)).contains("SK-2").doesNotContain("SK-1");
    }

    @Test
    void aMistakeIsRefusedWithItsPlace() {
        sailings.saved();
        for (var wrong : Map.of(
                        "{ after: 2 checks, to: [a@b.example] }",
                                "is not a length of time. Examples: 10 minutes, 4 hours",
                        "{ to: [a@b.example] }", "4 hours",
                        "{ after: 4 hours }", "lead@skerry.example",
                        "{ after: 4 hours, to: [\"team: Nobody at all\"] }", "there is no team")
                .entrySet())
            assertThat(api.pushAnswer(sailings.rule().replace("] }\n", "], escalate: " + wrong.getKey() + " }\n"))
                            .text())
                    .as(wrong.getKey())
                    .contains(wrong.getValue());
    }
}
