package dev.oddsentry.service.copies;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Each row of a recipient query has a check, a memory and a mail of its own. */
class PersonalCopiesTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String path = "/api/rules/" + sailings.name;
    private final String managers = sailings.name + "-managers";
    private final String holm = "holm-" + sailings.name + "@skerryline.example";
    private final String vik = "vik-" + sailings.name + "@skerryline.example";

    @BeforeEach
    void twoManagers() {
        service.ferry("create table \"" + managers + "\" (terminal text, address text, hello text, least int)");
        manager("Holm", holm, 0);
        manager("Vik", vik, 0);
        api.push("kind: query\nname: " + managers + "\nsource: ferry\nsql: 'select * from \"" + managers
                + "\" order by terminal'\n");
        // From where it sails and where it goes to: one sailing may concern two.
        sailings.change("alter table sailing_table add terminals text");
    }

    @AfterEach
    void pause() {
        api.postAnswer(path + "/pause", "");
    }

    private void manager(String terminal, String address, int least) {
        service.ferry("insert into \"" + managers + "\" values ('" + terminal + "', '" + address + "', 'Good morning, "
                + terminal + "', " + least + ")");
    }

    private void managers(String change) {
        service.ferry(change.replace("manager_table", "\"" + managers + "\""));
    }

    private void late(String sailing, int minutes, String terminals) {
        sailings.change(
                "insert into sailing_table values ('" + sailing + "', " + minutes + ", null, '" + terminals + "')");
    }

    private String query() {
        return sailings.query("select sailing, delay_min, reason from \"" + sailings.name
                        + "\" where terminals like '%' || :terminal || '%' and delay_min >= :least")
                + "parameters: { terminal: { type: text }, least: { type: number, default: 0 } }\n";
    }

    private String copies(String more) {
        return "copies: { from: " + managers
                + ", key: terminal, greeting: hello, parameters: { terminal: terminal, least: least }" + more + " }\n";
    }

    private void active(String more) {
        api.push(query());
        api.push(sailings.rule() + copies(more));
        api.post(path + "/activate", "");
    }

    private Map<String, JsonNode> copiesOf(JsonNode check) {
        return api.get("/api/checks/" + check.path("id").asString() + "/copies")
                .valueStream()
                .collect(Collectors.toMap(each -> each.path("copy").asString(), Function.identity()));
    }

    private String state(JsonNode check, String copy) {
        return copiesOf(check).get(copy).path("state").asString();
    }

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
