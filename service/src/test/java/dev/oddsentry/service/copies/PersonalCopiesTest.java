package dev.oddsentry.service.copies;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Each row of a recipient query has a check, a memory and a mail of its own. */
class PersonalCopiesTest extends TerminalManagers {
    @Test
    void eachCopyHasItsOwnMessagesAndMemory() {
        active("");
        late("SK-1", 20, "Holm");
        late("SK-2", 50, "Holm – Vik");
        var check = api.check(sailings.name);
        assertThat(check.path("state").asString()).isEqualTo("FIRED");
        assertThat(check.path("messages").asInt()).isEqualTo(2);
        assertThat(check.path("updates").asInt()).isEqualTo(3);
        assertThat(check.path("parts")
                        .valueStream()
                        .map(part -> part.path("text").asString() + " " + part.path("rowsLeft")))
                .as("of both copies together")
                .containsExactly("delay_min > 15 3", "reason is null 3");
        mails.sent(holm, 1);
        mails.sent(vik, 1);
        assertThat(mails.lastText(holm)).contains("Good morning, Holm", "SK-1", "SK-2", "all 2 open findings");
        assertThat(mails.lastText(vik))
                .contains("Good morning, Vik", "SK-2", "the open finding")
                .doesNotContain("SK-1");
        assertThat(mails.subjects(vik).getFirst()).endsWith("Late sailings of " + sailings.name + ": Vik");
        assertThat(service.mailTo(sailings.recipient)).isEmpty();
        assertThat(copiesOf(check).get("Holm").path("to").valueStream().map(JsonNode::asString))
                .containsExactly(holm);

        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        sailings.change("update sailing_table set terminals = 'Vik' where sailing = 'SK-2'");
        var cleared = api.check(sailings.name);
        assertThat(state(cleared, "Holm")).isEqualTo("FIRED");
        assertThat(state(cleared, "Vik")).isEqualTo("QUIET");
        mails.sent(holm, 2);
        assertThat(mails.lastText(holm)).contains("1 cleared", "SK-2");
        mails.sent(vik, 1);
    }

    @Test
    void oneThatFailsHoldsBackNoOtherAndIsTriedAgainAlone() {
        sailings.schedule(
                "schedule: { events: [" + sailings.name + "] }\nlimits: { retries: 2, retry_after: 30 minutes }");
        active("");
        managers("update manager_table set address = 'the office' where terminal = 'Holm'");
        late("SK-1", 20, "Holm – Vik");
        api.post("/api/events/" + sailings.name, Map.of());
        RunningService.await(
                "an end", () -> !latest().path("state").asString("RUNNING").equals("RUNNING"));
        var partly = latest();
        assertThat(partly.path("state").asString())
                .as("an address is not tried again")
                .isEqualTo("PARTLY_FAILED");
        assertThat(partly.path("reason").asString())
                .contains("1 of 2 personal copies failed (Holm", "\"the office\" is not a mail address");
        mails.sent(vik, 1);
        assertThat(state(partly, "Holm")).isEqualTo("FAILED");

        managers("update manager_table set address = '" + holm + "' where terminal = 'Holm'");
        sailings.change("create function \"" + sailings.name + "_fail\"(text) returns text language sql as "
                + "'select case when $1 = ''Holm'' then left($1, (4 / (select count(*) from \"" + sailings.name
                + "\" where sailing = ''MEND''))::int) else $1 end'");
        api.push(query().replace("|| :terminal ||", "|| \"" + sailings.name + "_fail\"(:terminal) ||"));
        late("SK-2", 20, "Holm – Vik");
        api.post("/api/events/" + sailings.name, Map.of());
        RunningService.await("a retry", () -> latest().path("failures").asInt() == 1);
        var waiting = latest();
        assertThat(state(waiting, "Vik")).isEqualTo("FIRED");
        assertThat(state(waiting, "Holm")).isEqualTo("FAILED");
        mails.sent(vik, 2);
        late("MEND", 0, "nowhere");
        var mended = api.check(sailings.name);
        assertThat(mended.path("id").asString())
                .as("asking tries it again")
                .isEqualTo(waiting.path("id").asString());
        RunningService.await(
                "an end", () -> !latest().path("state").asString("RUNNING").equals("RUNNING"));
        assertThat(latest().path("state").asString()).isEqualTo("FIRED");
        mails.sent(holm, 1);
        assertThat(mails.lastText(holm)).contains("SK-1", "SK-2");
        mails.sent(vik, 2);
    }

    private JsonNode latest() {
        return api.get(path + "/checks").path("checks").path(0);
    }

    @Test
    void aNewcomerTakesWhatIsThereAsKnownAndOneThatRestsIsLeftAlone() {
        active("");
        late("SK-1", 20, "Holm – Ytre");
        api.check(sailings.name);
        mails.sent(holm, 1);
        String ytre = "ytre-" + sailings.name + "@skerryline.example";
        manager("Ytre", ytre, 0);
        managers("delete from manager_table where terminal = 'Holm'");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        late("SK-2", 20, "Holm – Ytre");
        api.check(sailings.name);
        mails.sent(ytre, 1);
        assertThat(mails.lastText(ytre)).contains("SK-2", "all 2 open findings").doesNotContain("SK-1");
        assertThat(service.mailTo(holm)).hasSize(1);
        manager("Holm", holm, 0);
        api.check(sailings.name);
        mails.sent(holm, 2);
        assertThat(mails.lastText(holm)).as("what it missed").contains("SK-2").doesNotContain("SK-1");
    }

    @Test
    void whatAPersonDidWhileACopyRestedIsOwedToItWhenItComesBack() {
        active("");
        late("SK-1", 20, "Holm – Vik");
        var first = api.check(sailings.name);
        assertThat(first.path("readAt").isString()).isTrue();
        mails.sent(holm, 1);
        managers("delete from manager_table where terminal = 'Holm'");
        late("SK-2", 12, "Holm – Vik");
        api.push(sailings.exceptions("delay_min > 10 and reason is null").rule() + copies(""), "?treatAsKnown=true");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        manager("Holm", holm, 0);
        assertThat(api.check(sailings.name).path("state").asString())
                .as("taken as known by Holm too")
                .isEqualTo("QUIET");
        late("SK-3", 12, "Holm");
        api.check(sailings.name);
        mails.sent(holm, 2);
        assertThat(mails.lastText(holm)).contains("SK-3").doesNotContain("SK-2");
    }

    @Test
    void newCopyReportsExistingFindingsIfTheRuleSaysSo() {
        active(", newcomers: report");
        late("SK-1", 20, "Holm – Ytre");
        api.check(sailings.name);
        String ytre = "ytre-" + sailings.name + "@skerryline.example";
        manager("Ytre", ytre, 0);
        api.check(sailings.name);
        mails.sent(ytre, 1);
        assertThat(mails.lastText(ytre)).contains("SK-1");
        mails.sent(holm, 1);
    }

    @Test
    void aCopyIsSeenExplainedAndMarkedForItself() {
        active("");
        late("SK-1", 20, "Holm – Vik");
        late("SK-2", 20, "Vik");
        var preview = api.post(path + "/preview", "");
        assertThat(preview.path("copy").asString()).isEqualTo("Holm");
        assertThat(preview.path("copies")
                        .valueStream()
                        .map(each -> each.path("key").asString() + " "
                                + each.path("exceptions").asInt() + " "
                                + each.path("wouldReport").asInt()))
                .containsExactly("Holm 1 1", "Vik 2 2");
        assertThat(preview.path("audiences").path(0).path("to").path(0).asString())
                .isEqualTo(holm);
        assertThat(api.post(path + "/preview?copy=Vik", "").path("exceptions").asInt())
                .isEqualTo(2);
        assertThat(api.send("POST", path + "/preview?copy=Ytre", "", Map.of()).text())
                .contains("no personal copy for", "Holm, Vik");
        assertThat(api.send("GET", path + "/preview.eml?copy=Vik", null, Map.of())
                        .text())
                .contains("To: " + vik, "SK-2");
        assertThat(api.send("GET", path + "/extract.csv?copy=Holm", null, Map.of())
                        .text())
                .contains("SK-1")
                .doesNotContain("SK-2");
        api.check(sailings.name);

        assertThat(api.get(path + "/explanation?key=SK-2").path("identity").asString())
                .isEqualTo("Vik: SK-2");
        assertThat(api.send("GET", path + "/explanation?key=SK-1", null, Map.of())
                        .text())
                .contains("those for Holm, Vik have found it");
        var story = api.get(path + "/explanation?key=SK-1&copy=Holm");
        assertThat(story.path("identity").asString()).isEqualTo("Holm: SK-1");
        assertThat(story.path("present").path("verdict").asString()).isEqualTo("TRUE");
        assertThat(api.send("GET", path + "/explanation?key=SK-9", null, Map.of())
                        .text())
                .contains("none of them has found");
        api.post(path + "/handling", Map.of("key", List.of("SK-1"), "copy", "Holm", "kind", "ACCEPT", "note", "known"));
        var findings = api.get(path + "/findings").path("findings");
        assertThat(findings.valueStream()
                        .filter(each -> !each.path("handling").isEmpty())
                        .map(each -> each.path("copy").asString()))
                .containsExactly("Holm");
        var told = api.get(
                path + "/reported?to=" + vik + "&on=" + java.time.LocalDate.now(java.time.ZoneId.of("Europe/Oslo")));
        assertThat(told.path("recipient").asBoolean()).isTrue();
        assertThat(told.path("messages")
                        .path(0)
                        .path("findings")
                        .valueStream()
                        .map(each -> each.path("identity").asString()))
                .containsExactlyInAnyOrder("Vik: SK-1", "Vik: SK-2");
        managers("update manager_table set address = 'the office' where terminal = 'Holm'");
        assertThat(api.postAnswer(path + "/send-open", Map.of("to", vik)).status())
                .isEqualTo(200);
        mails.sent(vik, 2);
        assertThat(mails.lastText(vik)).contains("Good morning, Vik", "SK-1", "SK-2");
        mails.sent(holm, 1);
    }

    @Test
    void onlyTheCopyBeyondItsLimitAwaitsApproval() {
        sailings.memory("memory: { key: [sailing], absence: clears, max_opened: 2 }");
        active("");
        late("SK-0", 20, "Holm – Vik");
        api.check(sailings.name);
        for (int i = 1; i < 5; i++) late("SK-" + i, 20, i < 2 ? "Holm – Vik" : "Holm");
        var kept = api.check(sailings.name);
        assertThat(kept.path("state").asString()).isEqualTo("AWAITING_APPROVAL");
        assertThat(kept.path("reason").asString())
                .contains("1 of 2 personal copies awaiting approval (Holm: 4 findings would open");
        mails.sent(vik, 2);
        mails.sent(holm, 1);
        var released = api.post("/api/checks/" + kept.path("id").asString() + "/approve", "");
        assertThat(released.path("state").asString()).isEqualTo("FIRED");
        mails.sent(holm, 2);
        mails.sent(vik, 2);
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
    }
}
