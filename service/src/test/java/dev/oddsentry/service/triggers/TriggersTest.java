package dev.oddsentry.service.triggers;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Checks that outside events and other rules begin, and checks that wait. */
class TriggersTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final String event = "loaded-" + UUID.randomUUID().toString().substring(0, 8);

    private List<JsonNode> checks(String rule) {
        return api.get("/api/rules/" + rule + "/checks")
                .path("checks")
                .valueStream()
                .toList();
    }

    private List<JsonNode> ended(String rule) {
        return checks(rule).stream()
                .filter(check -> !check.path("state").asString("").equals("RUNNING"))
                .toList();
    }

    private Map<String, Object> source(Map<String, Object> besides) {
        var settings = new HashMap<String, Object>(besides);
        settings.put("jdbcUrl", service.postgres().jdbcUrl("ferry"));
        settings.put("username", "ferry_reader");
        settings.put("password", "reader");
        return settings;
    }

    /** The rule listens to the event, and its query takes the least delay from it. */
    private void listening() {
        api.push(sailings.query(
                        "select sailing, delay_min, reason from \"" + sailings.name + "\" where delay_min >= :least")
                + "parameters: { least: { type: number, default: 0 } }\n");
        api.push(sailings.rule());
        api.post("/api/rules/" + sailings.name + "/activate", "");
    }

    @Test
    void anEventBeginsACheckOfEachRuleThatListensWithItsValues() {
        sailings.late("SK-1", 20).late("SK-2", 50).schedule("schedule: { events: [" + event + "] }");
        listening();
        var heard = api.post("/api/events/" + event, Map.of("values", Map.of("least", "30")));
        assertThat(heard.path("rules").path(0).asString()).isEqualTo(sailings.name);
        RunningService.await("a check", () -> ended(sailings.name).size() == 1);
        var check = checks(sailings.name).getFirst();
        assertThat(check.path("origin").asString()).isEqualTo("EVENT");
        assertThat(check.path("event").asString()).isEqualTo(event);
        assertThat(check.path("slot").asString()).isEqualTo(heard.path("slot").asString());
        assertThat(check.path("parameters").path("least").asString()).isEqualTo("30");
        assertThat(check.path("exceptions").asInt()).isEqualTo(1);

        api.post("/api/events/" + event, Map.of());
        RunningService.await("another", () -> ended(sailings.name).size() == 2);
        assertThat(checks(sailings.name).getFirst().path("exceptions").asInt()).isEqualTo(2);
    }

    @Test
    void theSameRequestKeyBeginsNoOtherCheckAndWhatFitsNobodyIsRefused() {
        sailings.schedule("schedule: { events: [" + event + "] }");
        listening();
        var key = Map.of("Content-Type", "application/json", "Idempotency-Key", "load 7");
        for (int i = 0; i < 2; i++)
            assertThat(api.send("POST", "/api/events/" + event, "{}", key).status())
                    .isEqualTo(200);
        RunningService.await("a check", () -> ended(sailings.name).size() == 1);
        api.post("/api/events/" + event, Map.of());
        RunningService.await("the next", () -> ended(sailings.name).size() == 2);
        assertThat(checks(sailings.name)).hasSize(2);

        assertThat(api.postAnswer("/api/events/" + event + "s", Map.of()).text())
                .contains("No rule listens to an event", "Did you mean", event);
        assertThat(api.postAnswer("/api/events/" + event, Map.of("values", Map.of("leest", "3")))
                        .text())
                .contains("has a parameter leest; they have least");
        assertThat(api.postAnswer("/api/events/" + event, Map.of("values", Map.of("least", "many")))
                        .text())
                .contains("takes least");
        assertThat(new HttpApi(service.baseUrl(), null)
                        .postAnswer("/api/events/" + event, Map.of())
                        .status())
                .isEqualTo(403);
    }

    @Test
    void eventsBehindARunningCheckBecomeOneUnlessTheirValuesDiffer() {
        sailings.late("SK-1", 20).schedule("schedule: { events: [" + event + "] }");
        api.push(sailings.query("select sailing, delay_min + pg_sleep(1)::text::int * 0 as delay_min, reason from \""
                                + sailings.name + "\" where delay_min >= :least")
                        .replace("pg_sleep(1)::text::int * 0", "coalesce(nullif(pg_sleep(1)::text, ''''), ''0'')::int")
                + "parameters: { least: { type: number, default: 0 } }\n");
        api.push(sailings.rule());
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.post("/api/events/" + event, Map.of());
        RunningService.await("running", () -> !checks(sailings.name).isEmpty());
        for (String least : List.of("1", "1", "1", "2"))
            api.post("/api/events/" + event, Map.of("values", Map.of("least", least)));
        RunningService.await(
                "all", Duration.ofSeconds(30), () -> ended(sailings.name).size() == 3);
        assertThat(ended(sailings.name))
                .extracting(check -> check.path("slotsCovered").asInt())
                .containsExactly(1, 3, 1);
    }

    @Test
    void aRuleFollowsAnotherAtItsSlotOnTheOutcomesItNames() {
        sailings.late("SK-1", 20).active();
        var after = new LateSailings(service)
                .late("SK-9", 20)
                .schedule("schedule: { after: [ { rule: " + sailings.name + ", on: [fired, failed] } ] }")
                .active();
        var fired = api.check(sailings.name);
        RunningService.await("the follower", () -> ended(after.name).size() == 1);
        var followed = checks(after.name).getFirst();
        assertThat(followed.path("slot").asString())
                .isEqualTo(fired.path("slot").asString());
        assertThat(followed.path("origin").asString()).isEqualTo("CHAINED");
        assertThat(followed.path("parentId").asString())
                .isEqualTo(fired.path("id").asString());

        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        sailings.change("drop table sailing_table");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FAILED");
        RunningService.await("after the failure", () -> ended(after.name).size() == 2);
        assertThat(checks(after.name)).as("none after the quiet one").hasSize(2);
    }

    @Test
    void aBlankResultBeginsACheckOfTheRuleThatAsksForIt() {
        sailings.active();
        var after = new LateSailings(service)
                .schedule("schedule: { after: { rule: " + sailings.name + ", on: no_rows } }")
                .active();
        api.check(sailings.name);
        RunningService.await("the follower", () -> ended(after.name).size() == 1);
    }

    @Test
    void rulesThatWouldBeginOneAnotherInACircleAreRefused() {
        sailings.active();
        var second = new LateSailings(service)
                .schedule("schedule: { after: " + sailings.name + " }")
                .active();
        String circle =
                sailings.schedule("schedule: { after: [" + second.name + "] }").rule();
        assertThat(api.pushAnswer(circle).text())
                .contains("in a circle: " + sailings.name + " follows " + second.name + " follows " + sailings.name);
        assertThat(api.pushAnswer(sailings.schedule("schedule: { after: [" + sailings.name + "] }")
                                .rule())
                        .text())
                .contains("in a circle");
        assertThat(api.pushAnswer(sailings.schedule("schedule: { after: [" + second.name + "x] }")
                                .rule())
                        .text())
                .contains("there is no rule", second.name);
    }

    @Test
    void whatRulesNameKeepsItsName() {
        sailings.active();
        var after = new LateSailings(service)
                .schedule("schedule: { after: " + sailings.name + " }")
                .active();
        for (String kind : List.of("query", "rule")) {
            String saved = api.send("GET", "/api/definitions/" + kind + "/" + sailings.name, null, Map.of())
                    .text();
            String user = kind.equals("rule") ? after.name : sailings.name;
            assertThat(api.pushAnswer(saved.replaceFirst("name: " + sailings.name, "name: " + sailings.name + "-other"))
                            .text())
                    .contains("used under the name", "by the rule " + user);
        }
        String free = api.send("GET", "/api/definitions/rule/" + after.name, null, Map.of())
                .text();
        assertThat(api.push(free.replaceFirst("name: " + after.name, "name: " + after.name + "-other"))
                        .path("revision")
                        .asInt())
                .isEqualTo(2);
    }

    @Test
    void aCheckWaitsUntilItIsReadyAndHasFailedAtItsDeadline() {
        String ready = sailings.name + "-ready";
        service.ferry("create table \"" + ready + "\" (loaded date)");
        api.push("kind: query\nname: " + ready + "\nsource: ferry\nsql: 'select loaded from \"" + ready + "\"'\n");
        String schedule = "schedule: { start: %s, recur: FREQ=DAILY, ready_when: { query: " + ready
                + ", every: 1 minute, until: %s } }";
        var slot = LocalDateTime.now(ZoneId.of("Europe/Oslo")).minusMinutes(5).truncatedTo(ChronoUnit.MINUTES);
        sailings.late("SK-1", 20).schedule(schedule.formatted(slot, "1 hour")).active();
        var waits = api.check(sailings.name);
        assertThat(waits.path("waitingFor").asString()).isEqualTo("READY");
        assertThat(waits.path("reason").asString())
                .isEqualTo("Not ready yet: the query " + ready + " returned no row.");
        service.ferry("insert into \"" + ready + "\" values ('2026-05-04')");
        // A person who asks need not wait for the next minute.
        api.check(sailings.name);
        RunningService.await("ready", () -> ended(sailings.name).size() == 1);
        assertThat(checks(sailings.name).getFirst().path("state").asString()).isEqualTo("FIRED");

        service.ferry("delete from \"" + ready + "\"");
        api.push(sailings.schedule(schedule.formatted(slot, "3 minutes")).rule());
        missed(slot.atZone(ZoneId.of("Europe/Oslo")).toInstant());
        RunningService.await(
                "the deadline",
                () -> checks(sailings.name).stream()
                        .anyMatch(check -> check.path("reason")
                                .asString("")
                                .equals("Not ready: the query " + ready
                                        + " returned no row within 3 minutes of the slot.")));
        api.post("/api/rules/" + sailings.name + "/pause", "");
    }

    /** As if nobody had run checks since before that slot, and nothing were known yet. */
    private void missed(Instant slot) {
        String rule = "(select id from definition where name = '" + sailings.name + "' and kind = 'RULE')";
        service.execute(
                "records", "update rule set last_good_slot = null, next_slot = '" + slot + "' where id = " + rule);
        service.execute(
                "records",
                "update scheduled_tasks set execution_time = now() where task_name = 'slot' and task_instance = " + rule
                        + "::text");
    }

    @Test
    void checksWaitWhileTheirSourceIsClosedAndDoNotFail() {
        var now = LocalTime.now(ZoneOffset.UTC).truncatedTo(ChronoUnit.MINUTES);
        String closed = now.minusMinutes(5) + "-" + now.plusHours(3) + " UTC";
        var saved = api.put("/api/sources/" + sailings.name, source(Map.of("closed", closed, "spreadSeconds", 1)));
        assertThat(saved.path("source").path("closed").asString()).isEqualTo(closed);
        sailings.late("SK-1", 20);
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\"")
                .replace("source: ferry", "source: " + sailings.name));
        api.push(sailings.schedule("schedule: { start: 2026-01-01T00:00, recur: FREQ=SECONDLY;INTERVAL=3 }")
                .rule());
        api.post("/api/rules/" + sailings.name + "/activate", "");
        RunningService.await(
                "overtaken", Duration.ofSeconds(30), () -> ended(sailings.name).size() >= 2);
        assertThat(ended(sailings.name))
                .allSatisfy(check -> assertThat(check.path("state").asString()).isEqualTo("SKIPPED"));
        RunningService.await(
                "waiting",
                () -> checks(sailings.name)
                        .getFirst()
                        .path("waitingFor")
                        .asString("")
                        .equals("SOURCE_OPEN"));
        var waits = checks(sailings.name).getFirst();
        assertThat(Instant.parse(waits.path("retryAt").asString()))
                .isAfter(Instant.now().plusSeconds(9_000));

        api.put("/api/sources/" + sailings.name, source(Map.of()));
        RunningService.await(
                "the next slot",
                () -> ended(sailings.name).getFirst().path("state").asString().equals("FIRED"));
        api.post("/api/rules/" + sailings.name + "/pause", "");
        assertThat(api.send(
                                "PUT",
                                "/api/sources/" + sailings.name,
                                "{\"jdbcUrl\":\"jdbc:postgresql:x\",\"username\":\"u\",\"closed\":\"at night\"}",
                                Map.of("Content-Type", "application/json"))
                        .text())
                .contains("is not a time of day range");
    }
}
