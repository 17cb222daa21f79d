package dev.oddsentry.service.copies;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;

/** What a rule with personal copies says of them, and what it needs for that. */
class CopyDefinitionsTest extends TerminalManagers {
    @Test
    void whoHasACopyIsShownBeforeAnybodyIsMailed() {
        manager("Ytre", "", 0);
        active("");
        var list = api.send(
                        "POST",
                        "/api/audiences",
                        api.send("GET", "/api/definitions/rule/" + sailings.name, null, Map.of())
                                .text(),
                        Map.of("Content-Type", "application/yaml"))
                .body();
        assertThat(list.path("by").asString()).isEqualTo("terminal");
        assertThat(list.path("audiences")
                        .valueStream()
                        .map(each -> each.path("value").asString() + " "
                                + each.path("namedBy").asString()))
                .containsExactly("Holm QUERY", "Vik QUERY", "Ytre OTHERS");
    }

    @Test
    void whatTheRecipientQueryGivesMustTellCopiesApart() {
        active("");
        managers("update manager_table set address = null where terminal = 'Vik'");
        late("SK-1", 20, "Vik");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient))
                .as("nobody else is named")
                .contains("Good morning, Vik", "SK-1");
        manager("Vik", vik, 0);
        assertThat(api.check(sailings.name).path("reason").asString()).contains("two rows whose terminal is Vik");
        managers("update manager_table set terminal = null where address is null");
        assertThat(api.check(sailings.name).path("reason").asString()).contains("a row without terminal");
        managers("delete from manager_table");
        var check = api.check(sailings.name);
        assertThat(check.path("state").asString()).isEqualTo("FAILED");
        assertThat(check.path("reason").asString()).contains("returned no rows");
    }

    @Test
    void addingCopiesStartsOverAndClearsEarlierFindingsWithoutAMessage() {
        sailings.late("SK-1", 20);
        sailings.change("update sailing_table set terminals = 'Holm'");
        sailings.active();
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        api.push(query());
        assertThat(api.push(sailings.rule() + copies("")).path("effect").asString())
                .isEqualTo("OTHER_KEY_COLUMNS");
        api.check(sailings.name);
        mails.sent(holm, 1);
        mails.sent(sailings.recipient, 1);
        assertThat(api.get(path + "/findings?state=OPEN").path("total").asInt()).isEqualTo(1);
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        api.push(sailings.rule());
        api.check(sailings.name);
        mails.sent(sailings.recipient, 2);
        mails.sent(holm, 1);
        var open = api.get(path + "/findings?state=OPEN");
        assertThat(open.path("total").asInt()).isEqualTo(1);
        assertThat(open.path("findings").path(0).path("copy").isNull()).isTrue();
    }

    @Test
    void whatCopiesNeedIsSaidWhenItIsMissing() {
        api.push(query());
        String rule = sailings.rule();
        assertThat(api.pushAnswer(rule).text()).contains("needs a value for terminal");
        assertThat(api.pushAnswer(rule + "copies: { key: terminal }\n").text()).contains("\\\"from\\\" is missing");
        assertThat(api.pushAnswer(rule + copies("").replace("key: terminal", "key: harbour"))
                        .text())
                .contains("copies.key", "returns no column harbour");
        assertThat(api.pushAnswer(rule + copies("").replace("terminal: terminal", "terminals: terminal"))
                        .text())
                .contains("has no parameter terminals", "terminal");
        assertThat(api.pushAnswer(rule + copies(", newcomers: ignore")).text())
                .contains("unknown value \\\"ignore\\\"; use report, treat_as_known");
        assertThat(api.pushAnswer(rule + copies("").replace(managers, "nowhere"))
                        .text())
                .contains("there is no query");
        assertThat(api.pushAnswer(rule + "copies: all\n").text()).contains("has fields of its own");
    }

    @Test
    void textsMayNameTheRecipientsColumnsAndTheThresholdsInForce() {
        String threshold = "late_" + sailings.name.substring(5);
        api.push("kind: threshold\nname: " + threshold + "\ntitle: late minutes\nunit: min\n");
        api.post(
                "/api/thresholds/" + threshold + "/values",
                Map.of("values", java.util.List.of(Map.of("number", 15)), "reason", "to begin with"));
        late("SK-1", 20, "Holm");
        api.push(query());
        String rule = sailings.exceptions("delay_min > threshold('" + threshold + "')")
                        .rule()
                + copies("");
        api.push(rule.replace(
                "delivery: { to:", "delivery: { subject: \"{{recipient_hello}}, over {{thresholds}}\", to:"));
        api.post(path + "/activate", "");
        api.check(sailings.name);
        mails.sent(holm, 1);
        assertThat(mails.subjects(holm)).containsExactly("Good morning, Holm, over 15 min (threshold late minutes)");
        assertThat(api.pushAnswer(rule.replace("delivery: { to:", "delivery: { subject: \"{{recipient_helo}}\", to:"))
                        .text())
                .contains("there is no field \\\"recipient_helo\\\"", "recipient_hello");
    }
}
