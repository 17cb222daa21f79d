package dev.oddsentry.service.reporting;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** Each value of a column has an audience of its own, which hears about its own findings only. */
class SplitsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String holm = "holm-" + sailings.name + "@skerryline.example";
    private final String vik = "vik-" + sailings.name + "@skerryline.example";

    private String rule(String split) {
        return sailings.rule().replace("delivery: { to:", "delivery: { " + split + " to:");
    }

    private void active(String split) {
        sailings.change("alter table sailing_table add terminal text");
        api.push(sailings.query("select sailing, delay_min, reason, terminal from \"" + sailings.name + "\""));
        api.push(rule(split));
        api.post("/api/rules/" + sailings.name + "/activate", "");
    }

    private void late(String sailing, int minutes, String terminal) {
        sailings.change(
                "insert into sailing_table values ('" + sailing + "', " + minutes + ", null, " + terminal + ")");
    }

    private String byTable() {
        return "split_by: terminal, split_to: { Holm: [" + holm + "], Vik: [" + vik + "] },";
    }

    @Test
    void eachAudienceGetsOnlyItsFindings() {
        active(byTable());
        late("SK-1", 20, "'Holm'");
        late("SK-2", 50, "'Vik'");
        late("SK-3", 30, "'Ytre'");
        late("SK-4", 30, "null");
        var check = api.check(sailings.name);
        assertThat(check.path("messages").asInt()).isEqualTo(3);
        assertThat(check.path("updates").asInt()).isEqualTo(4);
        mails.sent(holm, 1);
        mails.sent(vik, 1);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(holm))
                .contains("SK-1", "View the open finding")
                .doesNotContain("SK-2", "SK-3", "SK-4");
        assertThat(mails.lastText(vik)).contains("SK-2").doesNotContain("SK-1");
        assertThat(mails.subjects(holm).getFirst()).endsWith("Late sailings of " + sailings.name + ": Holm");
        assertThat(mails.lastText(sailings.recipient))
                .as("nobody is named")
                .contains("SK-3", "SK-4")
                .doesNotContain("SK-1");

        late("SK-5", 20, "'Holm'");
        assertThat(api.check(sailings.name).path("messages").asInt()).isEqualTo(1);
        mails.sent(holm, 2);
        assertThat(mails.lastText(holm)).contains("SK-5", "all 2 open findings").doesNotContain("SK-2");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
    }

    @Test
    void aSplitThatFindsItsReadersInTheRowsNeedsNobodyElse() {
        sailings.exceptions("delay_min > 15");
        active("split_by: terminal, split_address: reason,");
        api.push(rule("split_by: terminal, split_address: reason,")
                .replace("to: [" + sailings.recipient + "]", "to: []"));
        api.post("/api/rules/" + sailings.name + "/pause", "");
        api.post("/api/rules/" + sailings.name + "/activate", "");
        sailings.change(
                "insert into sailing_table values ('SK-1', 20, '" + holm + "', 'Holm'), ('SK-2', 20, null, 'Vik')");
        var recipients =
                api.post("/api/rules/" + sailings.name + "/preview", "").path("audiences");
        assertThat(recipients.path(0).path("split").asString()).isEqualTo("Holm");
        assertThat(recipients.path(0).path("to").toString()).isEqualTo("[\"" + holm + "\"]");
        assertThat(recipients.path(1).path("to")).as("in nobody's row").isEmpty();
        api.check(sailings.name);
        mails.sent(holm, 1);
        assertThat(mails.lastText(holm)).contains("SK-1").doesNotContain("SK-2");
    }

    private String audiences(String split) {
        var list = api.send("POST", "/api/audiences", rule(split), Map.of("Content-Type", "application/yaml"))
                .body();
        return list.path("nobody").asInt() + " of " + list.path("all").asInt() + ": "
                + list.path("audiences")
                        .valueStream()
                        .map(each -> each.path("value").asString() + " "
                                + each.path("rows").asInt() + " "
                                + each.path("namedBy").asString())
                        .toList();
    }

    @Test
    void whoGetsWhatIsShownBeforeAnybodyIsMailed() {
        active(byTable());
        late("SK-1", 20, "'Holm'");
        late("SK-2", 50, "'Holm'");
        late("SK-3", 30, "'Ytre'");
        late("SK-4", 30, "null");
        sailings.change("update sailing_table set reason = '" + vik + "; nobody' where terminal = 'Ytre'");
        assertThat(audiences(byTable()))
                .as("Vik has no rows now, and is named all the same")
                .isEqualTo("0 of 4: [ 1 OTHERS, Holm 2 RULE, Vik 0 RULE, Ytre 1 OTHERS]");
        assertThat(audiences("split_by: terminal, split_address: reason,"))
                .isEqualTo("0 of 3: [ 1 OTHERS, Holm 2 OTHERS, Ytre 1 COLUMN]");
        String nobody = rule("split_by: terminal, split_to: { Holm: [" + holm + "] },")
                .replace("to: [" + sailings.recipient + "]", "to: []");
        var list = api.send("POST", "/api/audiences", nobody, Map.of("Content-Type", "application/yaml"))
                .body();
        assertThat(list.path("nobody").asInt()).isEqualTo(2);
        assertThat(list.path("audiences").path(1).path("value").asString())
                .as("those with nobody first")
                .isEqualTo("Ytre");
        assertThat(api.send("POST", "/api/audiences", sailings.rule(), Map.of("Content-Type", "application/yaml"))
                        .text())
                .contains("The rule has no split and no personal copies");
    }

    @Test
    void aFindingThatMovesIsNewForTheOneAndMovedAwayForTheOther() {
        sailings.memory("memory: { key: [sailing], report: [new, returned, cleared, moved], absence: clears }");
        active(byTable());
        late("SK-1", 20, "'Holm'");
        api.check(sailings.name);
        mails.sent(holm, 1);
        sailings.change("update sailing_table set terminal = 'Vik', delay_min = 47");
        assertThat(api.check(sailings.name).path("messages").asInt()).isEqualTo(2);
        mails.sent(vik, 1);
        mails.sent(holm, 2);
        assertThat(mails.lastText(vik)).contains("new", "SK-1");
        assertThat(mails.lastText(holm))
                .as("what they were told last, and not what has become of it")
                .contains("moved", "SK-1", "20 min", "warning")
                .doesNotContain("47 min", "Vik", "critical");
        assertThat(mails.lastText(vik)).contains("47 min");
        sailings.change("delete from sailing_table");
        assertThat(api.check(sailings.name).path("messages").asInt())
                .as("Holm has heard its end")
                .isEqualTo(1);
        mails.sent(vik, 2);
        assertThat(mails.lastText(vik)).contains("cleared");
        late("SK-1", 20, "'Holm'");
        api.check(sailings.name);
        mails.sent(holm, 3);
        assertThat(mails.lastText(holm)).contains("1 returned", "SK-1");
    }

    @Test
    void theMailOfEachPartCanBeSeenBeforeAndLeavesNoTrace() {
        active(byTable());
        String path = "/api/rules/" + sailings.name;
        assertThat(api.send("GET", path + "/preview.eml", null, Map.of()).text())
                .contains("Nothing is open");
        late("SK-1", 20, "'Holm'");
        late("SK-2", 50, "'Vik'");
        String ofVik =
                api.send("GET", path + "/preview.eml?split=Vik", null, Map.of()).text();
        assertThat(ofVik)
                .contains("To: " + vik, "Preview: Late sailings of " + sailings.name, "SK-2")
                .doesNotContain("SK-1");
        assertThat(api.send("GET", path + "/preview.eml?split=Ytre", null, Map.of())
                        .text())
                .contains("No mail would go to");
        assertThat(api.send("GET", path + "/extract.csv", null, Map.of()).text())
                .contains("SK-1", "SK-2")
                .startsWith("\uFEFF");
        assertThat(api.check(sailings.name).path("messages").asInt())
                .as("all of it is new still")
                .isEqualTo(2);
        mails.sent(vik, 1);
        assertThat(api.send("GET", path + "/preview.eml?split=Vik", null, Map.of())
                        .text())
                .as("nothing is new, so what is open")
                .contains("SK-2");
    }

    @Test
    void queryNamesTheRecipientsAndAnInvalidAddressFailsTheCheck() {
        String mail = sailings.name + "-mail";
        service.ferry("create table \"" + mail + "\" (terminal text, address text)");
        service.ferry("insert into \"" + mail + "\" values ('Holm', '" + holm + "; ')");
        api.push("kind: query\nname: " + mail + "\nsource: ferry\nsql: 'select terminal, address from \"" + mail
                + "\"'\n");
        active("split_by: terminal, split_from: " + mail + ",");
        late("SK-1", 20, "'Holm'");
        api.check(sailings.name);
        mails.sent(holm, 1);
        assertThat(service.mailTo(sailings.recipient)).isEmpty();
        service.ferry("update \"" + mail + "\" set address = 'the office'");
        late("SK-2", 20, "'Holm'");
        var check = api.check(sailings.name);
        assertThat(check.path("state").asString()).isEqualTo("FAILED");
        assertThat(check.path("reason").asString()).contains("gives \"the office\" for Holm");
        service.ferry("delete from \"" + mail + "\"");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient)).contains("SK-2").doesNotContain("SK-1");
    }

    @Test
    void splittingARuleTreatsExistingFindingsAsKnown() {
        active("");
        late("SK-1", 20, "'Holm'");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(api.push(rule(byTable())).path("effect").asString()).isEqualTo("OTHER_AUDIENCES");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        late("SK-2", 20, "'Holm'");
        api.check(sailings.name);
        mails.sent(holm, 1);
        assertThat(mails.lastText(holm)).contains("SK-2", "all 2 open findings").doesNotContain("SK-1");
        assertThat(api.push(rule("")).path("effect").asString()).isEqualTo("OTHER_AUDIENCES");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
    }

    @Test
    void whatASplitNeedsIsSaidWhenItIsMissing() {
        active("");
        assertThat(api.pushAnswer(rule("split_by: harbour,")).text()).contains("delivery.split_by", "harbour");
        assertThat(api.pushAnswer(rule("split_to: { Holm: " + holm + " },")).text())
                .contains("\\\"split_by\\\" is missing");
        assertThat(api.pushAnswer(rule("split_by: terminal, split_from: " + sailings.name + ","))
                        .text())
                .contains("returns no column address");
        assertThat(api.pushAnswer(rule("split_by: terminal, split_from: nowhere,"))
                        .text())
                .contains("there is no query");
    }
}
