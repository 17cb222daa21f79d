package dev.oddsentry.service.recipients;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Recipients that several rules mail under one name. */
class RecipientListsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String list = sailings.name + "-list";

    private String list(String recipients) {
        return "kind: recipient-list\nname: " + list + "\nrecipients: [" + recipients + "]\n";
    }

    private String rule() {
        return sailings.rule().replace("to: [" + sailings.recipient + "]", "to: [\"list: " + list + "\"]");
    }

    @Test
    void aRuleMailsThoseWhoAreOnTheListAtItsCheck() {
        String member = "member-" + sailings.recipient;
        String later = "later-" + sailings.recipient;
        api.put("/api/teams/" + sailings.name, Map.of("addresses", List.of(member)));
        api.push(list("Siv Tangen <" + sailings.recipient + ">, \"team: " + sailings.name + "\""));
        sailings.late("SK-1", 20).active();
        api.push(rule());
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        mails.sent(member, 1);
        assertThat(mails.lastText(member)).contains("Sent to: Siv Tangen, " + member + ".");
        api.push(list(later));
        sailings.late("SK-2", 20);
        api.check(sailings.name);
        mails.sent(later, 1);
        assertThat(service.mailTo(member)).hasSize(1);
        assertThat(api.get("/api/rules/" + sailings.name + "/reported?to=" + later + "&on=2026-01-01")
                        .path("recipient")
                        .asBoolean())
                .as("named through the list")
                .isTrue();
        assertThat(api.get("/api/recipients/" + later).toString()).contains("to, as list: " + list);
        assertThat(api.get("/api/definitions")
                        .valueStream()
                        .filter(each -> each.path("name").asString().equals(list)))
                .singleElement()
                .satisfies(each ->
                        assertThat(each.path("rules").path(0).asString()).isEqualTo(sailings.name));
    }

    @Test
    void listsAreCheckedAndKeepTheNameThatRulesUse() {
        assertThat(api.pushAnswer(list("\"list: other\"")).text())
                .contains("\\\"list: other\\\" is a list; a list contains addresses, teams and people");
        assertThat(api.pushAnswer(list("\"team: nobody\"")).text()).contains("there is no team \\\"nobody\\\"");
        assertThat(api.pushAnswer(list("ines.holm")).text()).contains("is not a mail address");
        var saved = api.push(list(sailings.recipient));
        sailings.active();
        assertThat(api.pushAnswer(rule().replace(list, list + "s")).text())
                .contains("there is no list \\\"" + list + "s\\\"", "\"suggestion\":\"" + list + "\"");
        api.push(sailings.rule().replace("to: [", "reply_to: [\"list: " + list + "\"], to: ["));
        assertThat(api.pushAnswer("id: " + saved.path("id").asString() + "\n"
                                + list(sailings.recipient).replace(list, list + "-2"))
                        .text())
                .contains("used under the name \\\"" + list + "\\\" by the rule " + sailings.name);
        assertThat(api.pushAnswer(
                                "kind: round-up\nname: " + sailings.name + "\nowner: Traffic reporting\nrules: ["
                                        + sailings.name
                                        + "]\nto: [\"list: none\"]\nschedule: { start: 2026-01-01T08:00, recur: FREQ=YEARLY }\n")
                        .text())
                .contains("there is no list \\\"none\\\"");
    }
}
