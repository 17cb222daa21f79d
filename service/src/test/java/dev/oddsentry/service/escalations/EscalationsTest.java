package dev.oddsentry.service.escalations;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Findings that nobody has taken within a time of being reported go to others, once. */
class EscalationsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String lead = "lead-" + sailings.recipient;

    private void active(String more, String after) {
        sailings.saved();
        api.push(sailings.rule()
                .replace(
                        "delivery: { to: [" + sailings.recipient + "] }",
                        "delivery: { to: [" + sailings.recipient + "], escalate: { after: " + after + ", to: [" + lead
                                + "] " + more + " } }"));
        api.postAnswer("/api/rules/" + sailings.name + "/activate", "");
    }

    /** As far as what was told, and how far it was looked at, can tell. */
    private void anHourPasses() {
        String rule = "(select id from definition where name = '" + sailings.name + "' and kind = 'RULE')";
        RunningService.await(
                "a first look",
                () -> service.count("records", "select count(*) from escalation where rule_id = " + rule) == 1);
        service.execute(
                "records",
                "update escalation set reports_seen_to = reports_seen_to - interval '1 hour' where rule_id = " + rule
                        + "; update message set created_at = created_at - interval '1 hour' where rule_id = " + rule);
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
    void whatNobodyTookIsPassedOnOnceAndWhatIsTakenIsNot() throws InterruptedException {
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
        Thread.sleep(1_000);
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
    void clearedFindingIsNotEscalatedAndAReturnedOneIsAgain() throws InterruptedException {
        sailings.late("SK-1", 20);
        active("", "1 hour");
        api.check(sailings.name);
        sailings.change("update sailing_table set delay_min = 1");
        api.check(sailings.name);
        anHourPasses();
        Thread.sleep(1_000);
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
        service.execute(
                "records",
                "update message set created_at = created_at - interval '2 hours' where subject like '%" + sailings.name
                        + "'");
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
