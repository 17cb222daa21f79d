package dev.oddsentry.service.roundups;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** One mail with the news of several rules, at times of its own. */
class RoundUpsTest {
    private static final String YEARLY = "{ start: 2026-01-01T08:00, recur: FREQ=YEARLY }";

    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings holm = new LateSailings(service);
    private final LateSailings vik = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String lead = "lead-" + holm.name + "@skerryline.example";
    private final String path = "/api/round-ups/" + holm.name;

    private String document(String more, String schedule) {
        return "kind: round-up\nname: %s\ntitle: The week\nowner: Traffic reporting\nzone: Europe/Oslo\nrules: [%s, %s]\nto: [%s]\n%s\nschedule: %s\n"
                .formatted(holm.name, holm.name, vik.name, lead, more, schedule);
    }

    private boolean send() {
        return !api.post(path + "/send", "").path("message").isNull();
    }

    @Test
    void saysOnceWhatDiffersFromWhatItSaidWhateverTheRulesSaidMeanwhile() {
        holm.late("SK-0", 20).active();
        vik.active();
        api.check(holm.name);
        api.push(document("", YEARLY));
        assertThat(send()).as("what was there it takes as known").isFalse();

        holm.late("SK-1", 50).late("SK-2", 20);
        api.check(holm.name);
        holm.change("delete from sailing_table where sailing = 'SK-2'");
        vik.late("VI-1", 20);
        api.check(holm.name);
        api.check(vik.name);
        mails.sent(holm.recipient, 3);
        assertThat(api.get(path + "/preview").path("subject").asString()).isEqualTo("1 critical, 1 warning: The week");
        assertThat(send()).isTrue();
        mails.sent(lead, 1);
        assertThat(mails.subjects(lead)).containsExactly("1 critical, 1 warning: The week");
        assertThat(mails.lastText(lead))
                .contains("From 2 rules. This is the first round-up", "2 new (1 critical)")
                .contains("SK-1", "*50 min*", "VI-1")
                .as("what opened and cleared in between")
                .doesNotContain("SK-2")
                .as("what it took as known")
                .doesNotContain("SK-0");
        assertThat(send()).as("it said that").isFalse();

        holm.change("update sailing_table set delay_min = 60 where sailing = 'SK-0'");
        holm.change("delete from sailing_table where sailing = 'SK-1'");
        api.check(holm.name);
        assertThat(send()).isTrue();
        mails.sent(lead, 2);
        assertThat(mails.lastText(lead))
                .contains("SK-0", "worse", "(was 20 min)", "cleared")
                .contains("Nothing new in: Late sailings of " + vik.name);
        assertThat(service.mailTo(vik.recipient)).hasSize(1);
        var story = api.get("/api/rules/" + holm.name + "/explanation?key=SK-1").toString();
        assertThat(story).contains("reported as new in \\\"1 critical, 1 warning: The week\\\", to " + lead);
        var day = api.get("/api/rules/" + holm.name + "/reported?to=" + lead + "&on="
                        + java.time.LocalDate.now(java.time.ZoneId.of("Europe/Oslo")))
                .toString();
        assertThat(day).contains("SK-1");
    }

    @Test
    void itsTimesAreItsOwnAndARuleMayHaveNobodyElse() {
        holm.saved();
        vik.saved();
        api.push(holm.rule().replace("to: [" + holm.recipient + "]", "to: []"));
        api.push(vik.rule());
        assertThat(api.postAnswer("/api/rules/" + holm.name + "/activate", "").text())
                .contains("or add the rule to a round-up");
        api.push(document("", "{ start: 2026-01-01T00:00, recur: FREQ=SECONDLY }"));
        api.post("/api/rules/" + holm.name + "/activate", "");
        holm.late("SK-1", 20);
        assertThat(api.check(holm.name).path("state").asString()).isEqualTo("QUIET");
        mails.sent(lead, 1);
        assertThat(mails.lastText(lead)).contains("SK-1", "1 new");
        holm.late("SK-2", 20);
        api.check(holm.name);
        mails.sent(lead, 2);
        assertThat(mails.lastText(lead))
                .contains("SK-2", "since the round-up of")
                .doesNotContain("SK-1");

        api.post(path + "/pause", "");
        holm.late("SK-3", 20);
        api.check(holm.name);
        assertThat(api.get(path).path("nextSlot").isNull()).isTrue();
        mails.sent(lead, 2);
        api.post(path + "/resume", "");
        mails.sent(lead, 3);
        assertThat(mails.lastText(lead)).contains("SK-3");
    }

    @Test
    void severeUpdateIsSentImmediatelyAndOnlyOnce() {
        holm.active();
        vik.active();
        api.check(holm.name);
        api.push(document("send_immediately: critical", YEARLY));
        holm.late("SK-1", 20).late("SK-2", 60);
        api.check(holm.name);
        mails.sent(lead, 1);
        assertThat(mails.subjects(lead)).containsExactly("1 critical: The week (sent immediately)");
        assertThat(mails.lastText(lead))
                .contains("SK-2", "Sent immediately because of its severity")
                .doesNotContain("SK-1")
                .doesNotContain("Nothing new");
        holm.change("update sailing_table set delay_min = 50 where sailing = 'SK-1'");
        api.check(holm.name);
        mails.sent(lead, 2);
        assertThat(mails.lastText(lead)).contains("SK-1").doesNotContain("SK-2");
        assertThat(send()).isFalse();
    }

    @Test
    void editTreatedAsKnownCausesNoUpdates() {
        holm.late("SK-1", 20).active();
        vik.active();
        api.check(holm.name);
        api.push(document("", YEARLY));
        holm.late("SK-2", 12);
        api.push(holm.exceptions("delay_min > 10 and reason is null").rule(), "?treatAsKnown=true");
        api.check(holm.name);
        assertThat(send()).as("taken as known").isFalse();
        api.push(holm.exceptions("delay_min > 15 and reason is null").rule());
        api.check(holm.name);
        assertThat(send()).as("no longer asked for").isFalse();
        api.push(holm.exceptions("delay_min > 10 and reason is null").rule());
        api.check(holm.name);
        assertThat(send()).as("found again, and told").isTrue();

        api.push(document("", YEARLY).replace(holm.name + ", " + vik.name, vik.name));
        holm.late("SK-3", 20);
        api.check(holm.name);
        api.push(document("", YEARLY));
        assertThat(send()).as("what came while it heard nothing of the rule").isFalse();
    }

    @Test
    void partsOfASplitAreSaidTogetherAndAMarkIsHeeded() {
        holm.change("alter table sailing_table add terminal text");
        api.push(holm.query("select sailing, delay_min, reason, terminal from \"" + holm.name + "\""));
        api.push(holm.rule().replace("delivery: { to:", "delivery: { split_by: terminal, to:"));
        api.post("/api/rules/" + holm.name + "/activate", "");
        vik.active();
        api.check(holm.name);
        api.push(document("", YEARLY));
        holm.change("insert into sailing_table values ('SK-1', 20, null, 'Holm'), ('SK-2', 20, null, 'Vik')");
        api.check(holm.name);
        api.post(
                "/api/rules/" + holm.name + "/handling",
                Map.of("key", List.of("SK-2"), "kind", "ACCEPT", "note", "known"));
        assertThat(send()).isTrue();
        mails.sent(lead, 1);
        assertThat(mails.lastText(lead)).contains("SK-1").doesNotContain("SK-2");
        holm.change("update sailing_table set terminal = 'Ness' where sailing = 'SK-1'");
        api.check(holm.name);
        assertThat(send()).as("to whom it belongs does not matter").isFalse();
    }

    @Test
    void saysWhatIsWrongWithTheDocument() {
        assertThat(api.pushAnswer("kind: round-up\nname: empty\nowner: Traffic reporting\n")
                        .text())
                .contains("\\\"rules\\\" is missing", "\\\"to\\\" is missing", "\\\"schedule\\\" is missing");
        holm.active();
        assertThat(api.pushAnswer(document("send_immediately: dire", YEARLY)).text())
                .contains("use notice, warning, critical");
        assertThat(api.pushAnswer(document("", YEARLY)).text()).contains("there is no rule \\\"" + vik.name);
        assertThat(api.pushAnswer(document("", "{ start: 2026-01-01T08:00, recur: FREQ=YEARLY, missed: each }"))
                        .text())
                .contains("unknown field \\\"missed\\\"");
        vik.active();
        api.push(document("", YEARLY));
        assertThat(api.pushAnswer(holm.rule()
                                .replace("name: " + holm.name, "name: other-" + holm.name)
                                .replace(
                                        "kind: rule",
                                        "kind: rule\nid: "
                                                + api.get("/api/definitions/rule/" + holm.name + ".json")
                                                        .path("id")
                                                        .asString()))
                        .text())
                .contains("by the round-up ");
    }
}
