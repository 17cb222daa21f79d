package dev.oddsentry.service.previews;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** A person who was added hears what is new from then on, and may be sent what the others were told before. */
class OpenFindingsSenderTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String path = "/api/rules/" + sailings.name;
    private final String siv = "siv-" + sailings.name + "@skerryline.example";

    private HttpApi.Answer send(String to) {
        return api.postAnswer(path + "/send-open", Map.of("to", to));
    }

    @Test
    void openFindingsCanBeSentToANewRecipientAlone() {
        sailings.late("SK-1", 20).late("SK-2", 60).active();
        assertThat(send(sailings.recipient).text()).contains("no successful check yet");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        api.post(path + "/handling", Map.of("key", java.util.List.of("SK-2"), "kind", "ACCEPT", "note", "known"));
        assertThat(send(siv).text()).contains("not a recipient of the rule");

        var saved = api.push(
                sailings.rule().replace("to: [" + sailings.recipient, "to: [" + sailings.recipient + ", " + siv));
        assertThat(saved.path("added").valueStream().map(each -> each.asString()))
                .containsExactly(siv);
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        assertThat(send(siv.toUpperCase(java.util.Locale.ROOT)).status()).isEqualTo(200);
        mails.sent(siv, 1);
        assertThat(mails.subjects(siv).getFirst()).contains("Open now: Late sailings");
        assertThat(mails.lastText(siv)).contains("SK-1").doesNotContain("SK-2");
        mails.sent(sailings.recipient, 1);
        assertThat(api.check(sailings.name).path("state").asString())
                .as("what was reported stays as it is")
                .isEqualTo("QUIET");
        api.push(sailings.rule()
                .replace("to: [" + sailings.recipient, "to: [" + sailings.recipient + ", " + siv)
                .replace("exceptions:", "fire_when: updates('new') > 0\nexceptions:"));
        sailings.late("SK-3", 20);
        api.check(sailings.name);
        mails.sent(siv, 2);
        mails.sent(sailings.recipient, 2);
        assertThat(mails.lastText(siv)).contains("SK-3").doesNotContain("SK-1");
        assertThat(send(siv).status()).as("though it would not fire").isEqualTo(200);
        mails.sent(siv, 3);
        assertThat(mails.lastText(siv)).contains("SK-1", "SK-3");
    }

    @Test
    void ofASplitOnlyTheirOwnPart() {
        sailings.change("alter table sailing_table add terminal text");
        api.push(sailings.query("select sailing, delay_min, reason, terminal from \"" + sailings.name + "\""));
        api.push(sailings.rule()
                .replace("delivery: { to:", "delivery: { split_by: terminal, split_to: { Holm: [" + siv + "] }, to:"));
        api.post(path + "/activate", "");
        sailings.change("insert into sailing_table values ('SK-1', 20, null, 'Holm'), ('SK-2', 20, null, 'Vik')");
        api.check(sailings.name);
        mails.sent(siv, 1);
        assertThat(send(siv).body().path("messages").asInt()).isEqualTo(1);
        mails.sent(siv, 2);
        assertThat(mails.lastText(siv)).contains("SK-1").doesNotContain("SK-2");
        assertThat(mails.subjects(siv).getLast()).contains("Open now: ", ": Holm");
        mails.sent(sailings.recipient, 1);
    }

    @Test
    void membersOfATeamGetTheMessage() {
        String team = "Team of " + siv.substring(0, siv.indexOf('@'));
        api.put(
                "/api/teams/" + team.replace(" ", "%20"),
                Map.of("addresses", java.util.List.of(siv, sailings.recipient)));
        sailings.late("SK-1", 20).saved();
        api.push(sailings.rule().replace("to: [" + sailings.recipient, "to: [\"team: " + team + "\""));
        api.post(path + "/activate", "");
        api.check(sailings.name);
        mails.sent(siv, 1);
        assertThat(send(siv).status()).isEqualTo(200);
        mails.sent(siv, 2);
        mails.sent(sailings.recipient, 1);
    }
}
