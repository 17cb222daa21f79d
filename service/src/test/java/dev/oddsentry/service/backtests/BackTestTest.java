package dev.oddsentry.service.backtests;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Rules over past slots. The refunds are one a day for forty days, 10 each, but 100 on the tenth day back. */
class BackTestTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final String name = "refunds-" + UUID.randomUUID().toString().substring(0, 8);

    @BeforeEach
    void refunds() {
        service.ferry("create table \"" + name + "\" as select (now() at time zone 'UTC')::date - i as day,"
                + " case when i = 10 then 100 else 10 end as amount from generate_series(1, 40) i");
        api.push(
                "kind: query\nname: " + name + "\nsource: ferry\nsql: select day, amount from \"" + name
                        + "\" where day >= :since and day < :until\n"
                        + "parameters: { since: { type: date, default: today - 1 day }, until: { type: date, default: today } }\n");
    }

    private void rule(String conditions) {
        api.push("kind: rule\nname: " + name + "\nowner: Traffic reporting\nquery: " + name + "\n" + conditions
                + "\nschedule: { start: 2026-01-01T00:30, recur: FREQ=DAILY }\n"
                + "delivery: { to: [" + name + "@skerryline.example] }\n");
    }

    private JsonNode ended(JsonNode asked) {
        String path = "/api/long-work/" + asked.path("id").asString();
        RunningService.await("an end", () -> !api.get(path).path("endedAt").isNull());
        return api.get(path);
    }

    private JsonNode backTest(Map<String, Object> ask) {
        return ended(api.post("/api/rules/" + name + "/back-tests", ask));
    }

    @Test
    void saysHowOftenARuleWouldHaveFiredUnderSeveralThresholds() {
        String limit = name.replace('-', '_');
        api.push("kind: threshold\nname: " + limit + "\n");
        api.post(
                "/api/thresholds/" + limit + "/values",
                Map.of("values", List.of(Map.of("number", 50)), "reason", "a test"));
        rule("exceptions: amount > threshold('" + limit + "')\nmemory: { key: [day] }");
        var done = backTest(Map.of("days", 30, "thresholds", Map.of(limit, List.of(5, 500))));
        assertThat(done.path("state").asString()).isEqualTo("DONE");
        assertThat(done.path("stepsDone").asInt()).isEqualTo(done.path("steps").asInt());
        var variants = done.path("result").path("variants");
        assertThat(variants).hasSize(3);
        assertThat(variants.path(0).path("messages").asInt()).as("as it is").isEqualTo(1);
        assertThat(variants.path(0).path("checks").asInt()).isEqualTo(30);
        assertThat(variants.path(1).path("messages").asInt()).as("over 5").isEqualTo(30);
        assertThat(variants.path(2).path("messages").asInt()).as("over 500").isZero();
        assertThat(api.get("/api/rules/" + name + "/findings").path("total").asInt())
                .isZero();
        assertThat(service.mailTo(name + "@skerryline.example")).isEmpty();
    }

    @Test
    void eachSettingOfTheMemoryIsLeftOutInTurn() {
        rule("exceptions: amount > 50\nmemory: { key: [amount], open_after: 2 checks, remind_every: 1 day }");
        var done = backTest(Map.of("days", 30, "without", List.of("OPEN_AFTER", "REMIND_EVERY")));
        var variants = done.path("result").path("variants");
        assertThat(variants).hasSize(3);
        assertThat(variants.path(0).path("without").isNull()).isTrue();
        assertThat(variants.path(0).path("messages").asInt())
                .as("one day is too short")
                .isZero();
        assertThat(variants.path(1).path("without").asString()).isEqualTo("OPEN_AFTER");
        assertThat(variants.path(1).path("messages").asInt()).isEqualTo(1);
        assertThat(variants.path(2).path("messages").asInt()).isZero();
        assertThat(api.postAnswer(
                                "/api/rules/" + name + "/back-tests",
                                Map.of(
                                        "days",
                                        30,
                                        "without",
                                        List.of("OPEN_AFTER"),
                                        "conditions",
                                        List.of("amount > 5")))
                        .text())
                .contains("one kind at a time");
    }

    @Test
    void otherConditionsAreTriedBesideTheRulesOwn() {
        rule("exceptions: amount > 50\nmemory: { key: [day] }");
        var done = backTest(Map.of("days", 30, "conditions", List.of("amount > 5", "amount > 500")));
        var variants = done.path("result").path("variants");
        assertThat(variants).hasSize(3);
        assertThat(variants.path(0).path("exceptions").isNull()).as("as it is").isTrue();
        assertThat(variants.path(0).path("messages").asInt()).isEqualTo(1);
        assertThat(variants.path(1).path("exceptions").asString()).isEqualTo("amount > 5");
        assertThat(variants.path(1).path("messages").asInt()).isEqualTo(30);
        assertThat(variants.path(2).path("messages").asInt()).isZero();
    }

    @Test
    void whatLiesBetweenTwoValuesIsListed() {
        rule("exceptions: amount > 50\nmemory: { key: [day] }");
        var variants = backTest(Map.of("days", 30, "conditions", List.of("amount > 5", "amount > 500")))
                .path("result")
                .path("variants");
        assertThat(variants.path(0).path("difference").isNull()).isTrue();
        var looser = variants.path(1).path("difference");
        assertThat(looser.path("more").asInt()).isEqualTo(29);
        assertThat(looser.path("fewer").asInt()).isZero();
        assertThat(looser.path("firstMore")).as("the latest").hasSize(20);
        assertThat(looser.path("firstMore").path(0).path("decided").asString()).isEqualTo("amount 10");
        assertThat(looser.path("firstMore")
                        .valueStream()
                        .map(each -> each.path("slot").asString()))
                .isSortedAccordingTo(Comparator.reverseOrder());
        var stricter = variants.path(2).path("difference");
        assertThat(stricter.path("more").asInt()).isZero();
        assertThat(stricter.path("firstFewer")).hasSize(1);
        assertThat(stricter.path("firstFewer").path(0).path("decided").asString())
                .isEqualTo("amount 100");
    }

    @Test
    void conditionThatDoesNotFitOrIsTriedWithThresholdsIsRefused() {
        rule("exceptions: amount > 50\nmemory: { key: [day] }");
        String path = "/api/rules/" + name + "/back-tests";
        var unknown = api.postAnswer(path, Map.of("days", 7, "conditions", List.of("amout > 5")));
        assertThat(unknown.status()).isEqualTo(422);
        assertThat(unknown.text()).contains("amout", "\"suggestion\":\"amount\"");
        var both = api.postAnswer(
                path, Map.of("days", 7, "conditions", List.of("amount > 5"), "thresholds", Map.of("x", List.of(1))));
        assertThat(both.status()).isEqualTo(422);
        assertThat(both.text()).contains("one kind at a time");
    }

    @Test
    void historyIsThereFromWarmUpSlotsThatAreNotCounted() {
        rule(
                "per: []\nmeasures: { total: sum(amount) }\nexceptions: total > 3 * usual(total, 5)\nmemory: { absence: clears }");
        var variant =
                backTest(Map.of("days", 20)).path("result").path("variants").path(0);
        assertThat(variant.path("checks").asInt()).isEqualTo(20);
        assertThat(variant.path("messages").asInt()).isEqualTo(1);
        assertThat(variant.path("unevaluated").asInt()).isZero();
    }

    @Test
    void aDraftIsBackTestedWithoutBeingSaved() {
        rule("exceptions: amount > 50\nmemory: { key: [day] }");
        String draft = "kind: rule\nname: " + name + "\nowner: Traffic reporting\nquery: " + name
                + "\nexceptions: amount > 5\nmemory: { key: [day] }\nschedule: { start: 2026-01-01T00:30, recur: FREQ=DAILY }\n";
        assertThat(backTest(Map.of("days", 7, "document", draft))
                        .path("result")
                        .path("variants")
                        .path(0)
                        .path("messages")
                        .asInt())
                .isEqualTo(7);
    }

    @Test
    void otherMeasureStartsItsMeasurementsOverAndWarns() {
        rule("per: []\nmeasures: { total: sum(amount) }\nexceptions: total > 3 * usual(total, 5)");
        ended(api.post("/api/rules/" + name + "/measurements/backfill", Map.of("days", 12)));
        assertThat(api.get("/api/rules/" + name + "/measurements")
                        .path(0)
                        .path("earlier")
                        .asBoolean())
                .isFalse();
        String query = api.send("GET", "/api/definitions/query/" + name, null, Map.of())
                .text();
        var saved = api.push(query.replace("sql: ", "sql: /* tidied */ ").replace("sql: |", "sql: |\n  /* tidied */"));
        assertThat(saved.path("warnings").toString())
                .contains(
                        "these rules start a new history and need time to learn what is usual: " + name,
                        "odd measurements " + name + " --join");
        assertThat(api.get("/api/rules/" + name + "/measurements")
                        .path(0)
                        .path("earlier")
                        .asBoolean())
                .isTrue();
        api.post("/api/rules/" + name + "/measurements/keep", "");
        assertThat(api.get("/api/rules/" + name + "/measurements")
                        .valueStream()
                        .anyMatch(series -> !series.path("earlier").asBoolean()
                                && series.path("points").size() >= 12))
                .isTrue();
    }

    @Test
    void aRuleThatIsNotSavedIsBackTestedToo() {
        rule("exceptions: amount > 50\nmemory: { key: [day] }");
        String fresh = "kind: rule\nname: " + name + "-fresh\nowner: Traffic reporting\nquery: " + name
                + "\nexceptions: amount > 5\nmemory: { key: [day] }\nschedule: { start: 2026-01-01T00:30, recur: FREQ=DAILY }\n";
        var done = ended(api.post("/api/back-tests", Map.of("days", 7, "document", fresh)));
        assertThat(done.path("result").path("variants").path(0).path("messages").asInt())
                .isEqualTo(7);
        assertThat(api.postAnswer("/api/back-tests", Map.of("days", 7)).text()).contains("document is missing");
    }

    @Test
    void historyIsFilledInAndMarkedSo() {
        rule("per: []\nmeasures: { total: sum(amount) }\nexceptions: total > 3 * usual(total, 5)");
        assertThat(ended(api.post("/api/rules/" + name + "/measurements/backfill", Map.of("days", 12)))
                        .path("state")
                        .asString())
                .isEqualTo("DONE");
        var points = api.get("/api/rules/" + name + "/measurements").path(0).path("points");
        assertThat(points.size()).isGreaterThanOrEqualTo(12);
        assertThat(points.path(0).path("backfilled").asBoolean()).isTrue();

        // Another zone whose day is the same, at whatever hour this runs.
        rule(
                "per: []\nzone: Atlantic/Reykjavik\nmeasures: { total: sum(amount) }\nexceptions: total > 3 * usual(total, 5)");
        assertThat(preview().path("unevaluatedGroups").path(0).path("reason").asString())
                .isEqualTo("still learning usual(total, 5), 0 of 5");
        api.post("/api/rules/" + name + "/measurements/keep", "");
        assertThat(preview().path("unevaluatedGroups")).isEmpty();
    }

    private JsonNode preview() {
        return api.post("/api/rules/" + name + "/preview", "");
    }

    @Test
    void whatWouldSayNothingTrueIsRefused() {
        rule("exceptions: amount > 50\nmemory: { key: [day] }\nparameters: { since: 2026-01-01, until: 2026-02-01 }");
        assertThat(refusal(Map.of("days", 7))).contains("reads the same rows at every slot");
        rule("exceptions: amount > 50\nmemory: { key: [day] }");
        assertThat(refusal(Map.of("days", 7, "thresholds", Map.of("no_such", List.of(1)))))
                .contains("does not use a threshold");
        assertThat(refusal(Map.of("days", 0))).isNotEmpty();
        api.push(
                "kind: query\nname: " + name + "\nsource: ferry\nsql: select day, amount from \"" + name
                        + "\" where day >= :since and day < :until and day < current_date\n"
                        + "parameters: { since: { type: date, default: today - 1 day }, until: { type: date, default: today } }\n");
        assertThat(refusal(Map.of("days", 7))).contains("reads the clock itself");
    }

    private String refusal(Map<String, Object> ask) {
        var answer = api.send(
                "POST",
                "/api/rules/" + name + "/back-tests",
                new tools.jackson.databind.json.JsonMapper().writeValueAsString(ask),
                Map.of("Content-Type", "application/json"));
        assertThat(answer.status()).isBetween(400, 422);
        return answer.text();
    }

    @Test
    void longWorkIsDoneOneAtATimeAndCanBeStopped() {
        service.ferry(
                "create or replace function slowly() returns boolean language sql as 'select pg_sleep(0.3) is not null'");
        api.push(
                "kind: query\nname: " + name + "\nsource: ferry\nsql: select day, amount from \"" + name
                        + "\" where day >= :since and day < :until and slowly()\n"
                        + "parameters: { since: { type: date, default: today - 1 day }, until: { type: date, default: today } }\n");
        rule("exceptions: amount > 50\nmemory: { key: [day] }");
        var asked = api.post("/api/rules/" + name + "/back-tests", Map.of("days", 300));
        String path = "/api/long-work/" + asked.path("id").asString();
        RunningService.await("progress", () -> api.get(path).path("stepsDone").asInt() > 1);
        var later = api.post("/api/rules/" + name + "/back-tests", Map.of("days", 2));
        String laterPath = "/api/long-work/" + later.path("id").asString();
        assertThat(api.get(laterPath).path("state").asString()).isEqualTo("WAITING");
        var stopped = api.post(path + "/stop", "");
        assertThat(stopped.path("state").asString()).isEqualTo("STOPPED");
        assertThat(stopped.path("reason").asString()).isEqualTo("Stopped by Operator.");
        assertThat(api.send("POST", path + "/stop", "", Map.of()).status()).isEqualTo(409);
        RunningService.await(
                "its turn", () -> api.get(laterPath).path("state").asString().equals("DONE"));
    }
}
