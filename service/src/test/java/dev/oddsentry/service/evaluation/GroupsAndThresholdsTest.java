package dev.oddsentry.service.evaluation;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Rules over groups and totals, and the thresholds they use, through the whole service. */
class GroupsAndThresholdsTest {
    private static final String EVERY_SECOND = "schedule: { start: 2026-01-01T00:00, recur: FREQ=SECONDLY }";

    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private String name;

    @BeforeEach
    void bunkerings() {
        name = "fuel-" + UUID.randomUUID().toString().substring(0, 8);
        service.ferry("create table \"" + name + "\" (vessel text, litres numeric, miles numeric)");
        api.push("kind: query\nname: " + name + "\nsource: ferry\nsql: select vessel, litres, miles from \"" + name
                + "\" order by vessel\n");
    }

    private void bunker(String vessel, String litres, int miles) {
        service.ferry("insert into \"" + name + "\" values ('" + vessel + "', " + litres + ", " + miles + ")");
    }

    private void active(String conditions) {
        api.push(rule(conditions));
        api.post("/api/rules/" + name + "/activate", "");
    }

    private String rule(String conditions) {
        return "kind: rule\nname: " + name + "\nowner: Traffic reporting\nquery: " + name + "\nzone: Europe/Oslo\n"
                + conditions + "\ndelivery: { to: [" + name + "@skerryline.example] }\n";
    }

    private JsonNode check() {
        return api.check(name);
    }

    private List<String> findings(String field) {
        var found = new ArrayList<String>();
        api.get("/api/rules/" + name + "/findings")
                .path("findings")
                .forEach(each -> found.add(each.path(field).asString("")));
        return found;
    }

    private String threshold(String key) {
        String threshold = name.replace('-', '_');
        api.push("kind: threshold\nname: " + threshold + "\ntitle: fuel\nunit: l\n" + key);
        return threshold;
    }

    private void give(String threshold, Object number, List<String> key, LocalDate from) {
        var value = new java.util.HashMap<String, Object>(Map.of("key", key));
        value.put("number", number);
        value.put("from", from == null ? null : from.toString());
        api.post("/api/thresholds/" + threshold + "/values", Map.of("values", List.of(value), "reason", "a test"));
    }

    @Test
    void valueChangedForTodayEvaluatesExistingFindingsAgain() {
        String threshold = "late_" + UUID.randomUUID().toString().substring(0, 8);
        String values = "/api/thresholds/" + threshold + "/values";
        api.push("kind: threshold\nname: " + threshold + "\ntitle: late\nunit: min\n");
        api.post(values, Map.of("values", List.of(Map.of("number", 15)), "reason", "to begin with"));
        var sailings = new LateSailings(service)
                .exceptions("delay_min > threshold('" + threshold + "')")
                .late("SK-1", 20)
                .late("SK-2", 30)
                .active();
        assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(2);
        api.post(values, Map.of("values", List.of(Map.of("number", 25)), "reason", "agreed today"));
        assertThat(api.check(sailings.name).path("state").asString())
                .as("SK-1 is no longer asked for, which is no news")
                .isEqualTo("QUIET");
        api.post(values, Map.of("values", List.of(Map.of("number", 15)), "reason", "as before", "treatAsKnown", true));
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        assertThat(api.get("/api/rules/" + sailings.name + "/findings?state=OPEN")
                        .path("total")
                        .asInt())
                .isEqualTo(2);
        api.post(
                values,
                Map.of("values", List.of(Map.of("number", 5, "from", "2099-01-01")), "reason", "planned for later"));
        sailings.late("SK-3", 20);
        assertThat(api.check(sailings.name).path("updates").asInt())
                .as("ordinary")
                .isEqualTo(1);
    }

    @Test
    void theWholeResultIsAFindingEvenWithoutARow() {
        active(
                "per: []\nmeasures: { loaded: count() }\nexceptions: loaded = 0\nmemory: { absence: clears, report: [new, cleared] }");
        var withoutRows = check();
        assertThat(withoutRows.path("state").asString()).isEqualTo("FIRED");
        assertThat(withoutRows.path("rowsRead").asInt()).isZero();
        assertThat(findings("identity")).containsExactly("the whole result");
        assertThat(check().path("state").asString()).isEqualTo("QUIET");
        bunker("Terna", "50", 10);
        assertThat(check().path("updates").asInt()).as("cleared").isEqualTo(1);
        assertThat(findings("state")).containsExactly("CLEARED");
    }

    @Test
    void expectedGroupWithoutRowsIsEvaluated() {
        String vessels = name + "-vessels";
        api.push("kind: query\nname: " + vessels
                + "\nsource: ferry\nsql: select * from (values ('Terna'), ('Skua'), ('Lomvi')) v(vessel)\n");
        bunker("Terna", "50", 10);
        active("per: [vessel]\nexpected_groups: " + vessels + "\nexceptions: count() = 0");
        assertThat(check().path("exceptions").asInt()).isEqualTo(2);
        assertThat(findings("identity")).containsExactlyInAnyOrder("Skua", "Lomvi");
    }

    @Test
    void aGroupOfWhichNobodyCanTellKeepsItsFindingAndIsNamed() {
        bunker("Terna", "90", 10);
        bunker("Skua", "50", 10);
        active("per: [vessel]\nexceptions: sum(litres) / sum(miles) > 6");
        assertThat(check().path("exceptions").asInt()).isEqualTo(1);
        service.ferry("update \"" + name + "\" set litres = null where vessel = 'Terna'");
        var unknown = check();
        assertThat(unknown.path("state").asString()).isEqualTo("INCOMPLETE");
        assertThat(unknown.path("unevaluatedGroups").path(0).path("group").asString())
                .isEqualTo("Terna");
        assertThat(unknown.path("unevaluatedGroups").path(0).path("reason").asString())
                .isEqualTo("sum(litres) is missing");
        assertThat(findings("state")).containsExactly("OPEN");
        assertThat(findings("noData")).containsExactly("true");
        service.ferry("update \"" + name + "\" set litres = 90 where vessel = 'Terna'");
        assertThat(check().path("state").asString()).isEqualTo("QUIET");
        assertThat(findings("noData")).containsExactly("false");
    }

    @Test
    void historyIsLearntFromScheduledChecksAndAnExceptionMustLast() {
        bunker("Terna", "50", 10);
        active(
                "per: [vessel]\nmeasures: { fuel: sum(litres) }\nexceptions: fuel > 1.5 * usual(fuel, 4)\nmemory: { open_after: 2 checks }\n"
                        + EVERY_SECOND);
        RunningService.await("something learnt", () -> points() >= 4);
        var checks = api.get("/api/rules/" + name + "/checks").path("checks");
        var first = checks.path(checks.size() - 1);
        assertThat(first.path("state").asString()).isEqualTo("INCOMPLETE");
        assertThat(first.path("unevaluatedGroups").path(0).path("reason").asString())
                .isEqualTo("still learning usual(fuel, 4), 0 of 4");
        bunker("Terna", "60", 10);
        RunningService.await(
                "mail", () -> !service.mailTo(name + "@skerryline.example").isEmpty());
        api.post("/api/rules/" + name + "/pause", "");
        // Checked on, what is unusual becomes usual, and clears; how soon depends on the machine.
        assertThat(kinds()).startsWith("PENDING", "OPENED", "REPORTED");
    }

    private long points() {
        long points = 0;
        for (var series : api.get("/api/rules/" + name + "/measurements"))
            points += series.path("points").size();
        return points;
    }

    private List<String> kinds() {
        try (var records = service.connect("records");
                var rows = records.createStatement()
                        .executeQuery("select e.kind from finding_event e join finding f on f.id = e.finding_id"
                                + " join definition d on d.id = f.rule_id where d.name = '" + name
                                + "' order by e.id")) {
            var kinds = new ArrayList<String>();
            while (rows.next()) kinds.add(rows.getString(1));
            return kinds;
        } catch (java.sql.SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void updatesWaitForTheFirstCheckThatFires() {
        bunker("Terna", "90", 10);
        active("exceptions: litres > 60\nfire_when: updates() >= 2\nmemory: { key: [vessel] }");
        assertThat(check().path("state").asString()).isEqualTo("QUIET");
        bunker("Skua", "70", 10);
        var fired = check();
        assertThat(fired.path("state").asString()).isEqualTo("FIRED");
        assertThat(fired.path("updates").asInt()).isEqualTo(2);
    }

    @Test
    void aThresholdIsKeptByKeyAndDateAndItsEffectIsCountedFirst() {
        String fuel = threshold("key: [vessel]");
        for (var vessel : List.of("Terna", "Skua", "Lomvi")) bunker(vessel, "50", 10);
        active("exceptions: litres > threshold('" + fuel + "', vessel)\nmemory: { key: [vessel], absence: clears }");
        assertThat(check().path("unknownRows").asInt()).as("no value yet").isEqualTo(3);
        give(fuel, 60, List.of(), null);
        give(fuel, 40, List.of("Skua"), LocalDate.of(2026, 1, 1));
        give(fuel, 30, List.of("Terna"), LocalDate.of(2999, 1, 1));
        assertThat(check().path("exceptions").asInt()).isEqualTo(1);

        var effect = api.post(
                "/api/thresholds/" + fuel + "/effect",
                Map.of("values", List.of(Map.of("number", 45), Map.of("key", List.of("Skua"), "from", "2026-01-01"))));
        assertThat(effect.path(0).path("before").asInt()).isEqualTo(1);
        assertThat(effect.path(0).path("after").asInt()).isEqualTo(3);
        assertThat(check().path("exceptions").asInt()).as("nothing was changed").isEqualTo(1);

        var page = api.get("/api/thresholds/" + fuel);
        assertThat(page.path("threshold").path("rules").path(0).asString()).isEqualTo(name);
        assertThat(page.path("threshold").path("planned").asInt()).isEqualTo(1);
        assertThat(page.path("history").path(0).path("reason").asString()).isEqualTo("a test");
        assertThat(page.path("history").path(0).path("setBy").asString()).isEqualTo("Operator");
    }

    @Test
    void theEffectOfAThresholdCountsWhatGetsAnotherSeverity() {
        String fuel = threshold("");
        for (var vessel : List.of("Terna", "Skua", "Lomvi")) bunker(vessel, "50", 10);
        give(fuel, 60, List.of(), null);
        active("exceptions: litres > 1\nseverity: [ { critical: litres > threshold('" + fuel
                + "') }, warning ]\nmemory: { key: [vessel] }");
        var effect = api.post("/api/thresholds/" + fuel + "/effect", Map.of("values", List.of(Map.of("number", 45))))
                .path(0);
        assertThat(effect.path("before").asInt()).isEqualTo(3);
        assertThat(effect.path("after").asInt()).isEqualTo(3);
        assertThat(effect.path("otherSeverity").asInt()).isEqualTo(3);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "vessel,from,number\\nTerna,,40\\n,,60                  | 2 |",
                "vessel;number\\nTerna;40,5\\nSkua;1                     | 2 |",
                "vessel\tnumber\\nTerna\t40                              | 1 |",
                "vessel,number\\nTerna,forty\\nSkua,                     | 0 | line 2: \"forty\" is not a number; line 3: \"\" is not a number",
                "vessel,from,number\\nTerna,1.6.,40                      | 0 | line 2: \"1.6.\" is not a date. Example: 2026-06-01",
                "vessel,number\\nTerna,1\\nTerna,2                       | 0 | line 3: an earlier line has a value for this key and date",
                "ship,number\\nTerna,1                                   | 0 | the table has no column \"vessel\"; its head is vessel,from,number",
                "vessel,number                                           | 0 | the table has no values; its head is vessel,from,number",
            })
    void aTableOfValuesIsReadWholeOrNotAtAll(String table, int read, String refused) {
        String fuel = threshold("key: [vessel]");
        var answer = api.send(
                "POST",
                "/api/thresholds/" + fuel + "/values.csv?reason=summer",
                table.replace("\\n", "\n"),
                Map.of("Content-Type", "text/csv"));
        if (refused == null) {
            assertThat(answer.body().path("changed").asInt()).isEqualTo(read);
            return;
        }
        var said = new ArrayList<String>();
        answer.body().path("problems").forEach(problem -> {
            String field = problem.path("field").asString("");
            said.add((field.isEmpty() ? "" : field + ": ")
                    + problem.path("message").asString());
        });
        Arrays.stream(refused.split("; (?=line)"))
                .forEach(words -> assertThat(said).contains(words));
        assertThat(api.get("/api/thresholds/" + fuel).path("values")).isEmpty();
    }

    @Test
    void aThresholdThatARuleUsesCannotBeKeptByAnotherKey() {
        String fuel = threshold("key: [vessel]");
        api.push(rule("exceptions: litres > threshold('" + fuel + "', vessel)\nmemory: { key: [vessel] }"));
        var refused = api.pushAnswer("kind: threshold\nname: " + fuel + "\ntitle: fuel\nkey: [vessel, route]\n");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("the rule " + name + " uses this threshold");
    }
}
