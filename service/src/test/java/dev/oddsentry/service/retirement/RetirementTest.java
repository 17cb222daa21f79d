package dev.oddsentry.service.retirement;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.HttpApi.Answer;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Executors;
import org.jooq.DSLContext;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class RetirementTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final DSLContext records = service.bean(DSLContext.class);

    private Answer retire(String kind, String name, String reason) {
        return api.send(
                "POST",
                "/api/definitions/" + kind + "/" + name + "/retire",
                "{\"reason\":\"" + reason + "\"}",
                Map.of("Content-Type", "application/json"));
    }

    private Answer restore(String kind, String name) {
        return api.send("POST", "/api/definitions/" + kind + "/" + name + "/restore", "", Map.of());
    }

    private Answer remove(String kind, String name) {
        return api.send("DELETE", "/api/definitions/" + kind + "/" + name, null, Map.of());
    }

    private List<String> names(String path) {
        var list = api.get(path);
        var items = list.isArray() ? list : list.path("rules");
        return items.valueStream().map(each -> each.path("name").asString()).toList();
    }

    private JsonNode archived(String name) {
        return api.get("/api/archive")
                .valueStream()
                .filter(each -> each.path("name").asString().equals(name))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aRetiredRuleIsInNoListAndComesBackWithWhatItRemembers() {
        var sailings = new LateSailings(service).late("SK-1", 60).active();
        String name = sailings.name;
        api.check(name);
        assertThat(retire("rule", name, "the line closed").status()).isEqualTo(200);

        assertThat(names("/api/rules")).doesNotContain(name);
        assertThat(names("/api/definitions")).contains(name);
        assertThat(api.get("/api/definitions").toString()).doesNotContain("Late sailings of " + name);
        var findings = api.get("/api/findings?q=" + name);
        assertThat(findings.path("total").asInt()).isZero();
        assertThat(archived(name).path("reason").asString()).isEqualTo("the line closed");
        assertThat(archived(name).path("kind").asString()).isEqualTo("rule");
        // Its history is still there.
        assertThat(api.get("/api/rules/" + name).path("rule").path("state").asString())
                .isEqualTo("PAUSED");
        assertThat(api.get("/api/rules/" + name + "/findings").path("total").asInt())
                .isEqualTo(1);
        assertThat(api.get("/api/outbox?rule=" + name).path("messages")).hasSize(1);

        for (String change : List.of("/activate", "/checks"))
            assertThat(api.send("POST", "/api/rules/" + name + change, "", Map.of())
                            .text())
                    .as(change)
                    .contains("is retired. Restore it first.");
        assertThat(api.pushAnswer(sailings.rule()).text()).contains("is retired. Restore it first.");
        assertThat(api.pushAnswer(sailings.rule()).status()).isEqualTo(409);

        assertThat(restore("rule", name).status()).isEqualTo(200);
        api.post("/api/rules/" + name + "/activate", "");
        sailings.late("SK-2", 50);
        assertThat(api.check(name).path("opened").asInt()).isEqualTo(1);
        assertThat(restore("rule", name).text()).contains("is not retired");
    }

    @Test
    void whatIsUsedStaysAndWhatIsRestoredNeedsWhatItUses() {
        var sailings = new LateSailings(service).active();
        String name = sailings.name;
        var used = retire("query", name, "no longer asked for");
        assertThat(used.status()).isEqualTo(409);
        assertThat(used.text()).contains("is used by the rule " + name + ". Change or retire that first.");
        assertThat(remove("rule", name).text()).contains("is not retired. Retire it first.");

        retire("rule", name, "the line closed");
        assertThat(retire("query", name, "the line closed").status()).isEqualTo(200);
        assertThat(restore("rule", name).text())
                .contains("uses the query \\\"" + name + "\\\", which is retired. Restore that first.");
        assertThat(api.pushAnswer(sailings.rule().replace("name: " + name, "name: other-" + name))
                        .text())
                .contains("the query \\\"" + name + "\\\" is retired");
        assertThat(remove("query", name).text()).contains("is named by the rule " + name);

        restore("query", name);
        assertThat(restore("rule", name).status()).isEqualTo(200);
    }

    @Test
    void aCheckThatAwaitsApprovalIsNotApprovedOnceItsRuleIsRetired() {
        var sailings = new LateSailings(service)
                .memory("memory: { key: [sailing], max_opened: 1 }")
                .late("SK-1", 60)
                .late("SK-2", 60)
                .active();
        String check = "/api/checks/" + api.check(sailings.name).path("id").asString();
        assertThat(retire("rule", sailings.name, "gone").status()).isEqualTo(200);
        var refused = api.send("POST", check + "/approve", "", Map.of());
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.text()).contains("is retired. Restore it first.");
        assertThat(api.post(check + "/discard", "").path("state").asString()).isEqualTo("STOPPED");
    }

    @Test
    void aReasonIsNeededAndAnUnknownNameIsSaid() {
        var sailings = new LateSailings(service).active();
        assertThat(retire("rule", sailings.name, "  ").status()).isBetween(400, 422);
        assertThat(retire("rule", "none-" + sailings.name, "gone").status()).isEqualTo(404);
        assertThat(retire("boat", sailings.name, "gone").status()).isEqualTo(404);
        assertThat(names("/api/rules")).contains(sailings.name);
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
        query          | source: ferry§sql: select 1 as one
        threshold      | unit: min
        calendar       | week: [monday]
        layout         | rows_as: list
        recipient-list | recipients: [deck@skerryline.example]
        """)
    void everyKindIsRetiredRestoredAndRemoved(String kind, String fields) {
        String name = "kept_" + UUID.randomUUID().toString().substring(0, 8);
        String document = "kind: " + kind + "\nname: " + name + "\n" + fields.replace('§', '\n') + "\n";
        api.push(document);
        assertThat(retire(kind, name, "unused").status()).isEqualTo(200);
        assertThat(names("/api/definitions")).doesNotContain(name);
        assertThat(restore(kind, name).status()).isEqualTo(200);
        assertThat(names("/api/definitions")).contains(name);
        retire(kind, name, "unused");
        assertThat(remove(kind, name).body().path("revisions").asInt()).isEqualTo(1);
        assertThat(names("/api/archive")).doesNotContain(name);
        assertThat(api.push(document).path("revision").asInt()).isEqualTo(1);
    }

    @Test
    void aRemovedRuleLeavesNothingButTheAudit() {
        var sailings =
                new LateSailings(service).late("SK-1", 60).late("SK-2", 20).active();
        var after = new LateSailings(service)
                .schedule("schedule: { after: " + sailings.name + " }")
                .active();
        String name = sailings.name;
        String roundUp = "round-up-" + name;
        String roundUpText = """
                kind: round-up
                name: %s
                owner: Traffic reporting
                to: [%s]
                rules: [%s]
                schedule: { start: 2026-01-05T06:00, recur: FREQ=WEEKLY }
                """.formatted(roundUp, sailings.recipient, name);
        api.push(roundUpText);
        api.check(name);
        RunningService.await(
                "its message", () -> !service.mailTo(sailings.recipient).isEmpty());
        api.post("/api/round-ups/" + roundUp + "/send", "");
        var finding =
                api.get("/api/findings?q=SK-1&rule=" + name).path("findings").path(0);
        api.post(
                "/api/rules/" + name + "/handling",
                Map.of("finding", finding.path("id").asLong(), "kind", "TAKE"));
        api.post("/api/holds", Map.of("rule", name, "reason", "a test"));
        var id = records.fetchOne("select id from definition where kind = 'RULE' and name = ?", name)
                .get(0, UUID.class);
        records.execute(
                "insert into reader_choice (definition_id, address, paused_until, chosen_at) values (?, 'a@b', now(), now())",
                id);
        assertThat(retire("rule", name, "gone").text()).contains("the rule " + after.name, "the round-up " + roundUp);

        retire("rule", after.name, "gone");
        assertThat(remove("rule", after.name).status()).isEqualTo(200);
        api.push(roundUpText.replace("rules: [" + name + "]", "rules: [" + another() + "]"));
        assertThat(retire("rule", name, "gone").status()).isEqualTo(200);
        var counts = api.get("/api/definitions/rule/" + name + "/removal");
        assertThat(counts.path("findings").asInt()).isEqualTo(2);
        assertThat(counts.path("checks").asInt()).isEqualTo(1);
        assertThat(remove("rule", name).body()).isEqualTo(counts);

        assertThat(holding(id)).isEmpty();
        assertThat(api.get("/api/audit?q=" + name).toString()).contains("REMOVE_DEFINITION", "2 findings");
        assertThat(api.push(sailings.rule()).path("revision").asInt()).isEqualTo(1);
    }

    @Test
    void mailThatIsHeldIsSettledBeforeItsRuleIsRemoved() {
        var sailings = new LateSailings(service).late("SK-1", 60).active();
        api.post("/api/holds", Map.of("rule", sailings.name, "reason", "a test"));
        api.check(sailings.name);
        retire("rule", sailings.name, "gone");
        var refused = remove("rule", sailings.name);
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.text()).contains("wait to be sent. Send or cancel them first.");
        assertThat(api.get("/api/outbox?rule=" + sailings.name).path("messages"))
                .hasSize(1);
    }

    private String another() {
        return new LateSailings(service).active().name;
    }

    /** The columns that hold the id, of all tables. */
    private List<String> holding(UUID id) {
        var columns = records.fetch("""
                select table_name, column_name from information_schema.columns
                 where table_schema = current_schema() and data_type = 'uuid'""");
        var holding = new ArrayList<String>();
        for (var column : columns) {
            String table = column.get(0, String.class);
            String name = column.get(1, String.class);
            var found = records.fetchValue("select count(*) from \"" + table + "\" where \"" + name + "\" = ?", id);
            if (((Number) found).longValue() > 0) holding.add(table + "." + name);
        }
        return holding;
    }

    @Test
    void aQueryIsNeverRetiredUnderARuleThatIsSavedMeanwhile() throws Exception {
        try (var both = Executors.newFixedThreadPool(2)) {
            for (int round = 0; round < 12; round++) {
                var sailings = new LateSailings(service);
                String rule = sailings.saved();
                var saved = both.submit(() -> api.pushAnswer(rule).status() == 200);
                var retired = both.submit(
                        () -> retire("query", sailings.name, "unused").status() == 200);
                assertThat(saved.get() && retired.get())
                        .as("both in round " + round)
                        .isFalse();
                assertThat(saved.get() || retired.get())
                        .as("one in round " + round)
                        .isTrue();
            }
        }
    }
}
