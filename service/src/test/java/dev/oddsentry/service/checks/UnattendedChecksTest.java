package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.sql.SQLException;
import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Checks that nobody watches: stopped, tried again, kept back, over their time, and who hears of it. */
class UnattendedChecksTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final String path = "/api/rules/" + sailings.name;
    private final String team = sailings.name + "-team";
    private final String owner = team + "@skerryline.example";

    private JsonNode latest() {
        return api.get(path + "/checks").path("checks").path(0);
    }

    private String state() {
        return latest().path("state").asString("");
    }

    private String stateOf(String rule) {
        return api.get("/api/rules/" + rule + "/checks")
                .path("checks")
                .path(0)
                .path("state")
                .asString("");
    }

    private void save(String rule) {
        api.put("/api/teams/" + team, Map.of("addresses", List.of(owner)));
        api.push(rule.replace("owner: Traffic reporting", "owner: " + team));
    }

    private Map<String, Object> settings() {
        return Map.of(
                "jdbcUrl",
                service.postgres().jdbcUrl("ferry"),
                "username",
                "ferry_reader",
                "password",
                "reader",
                "maxRows",
                1000,
                "timeLimitSeconds",
                4);
    }

    private List<String> subjectsToOwner() {
        return service.mailTo(owner).stream()
                .map(message -> {
                    try {
                        return message.getSubject();
                    } catch (jakarta.mail.MessagingException e) {
                        throw new IllegalStateException(e);
                    }
                })
                .toList();
    }

    private long sessionsAskingFor(String sql) {
        try (var connection = service.connect("postgres");
                var statement = connection.createStatement();
                var rows = statement.executeQuery("select count(*) from pg_stat_activity where state = 'active'"
                        + " and pid <> pg_backend_pid() and query like '%" + sql + "%'")) {
            rows.next();
            return rows.getLong(1);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void aRunningCheckSaysHowFarItIsAndIsStoppedInItsSource() {
        String mark = "stop me " + UUID.randomUUID();
        var settings = new HashMap<>(settings());
        settings.put("maxRows", 100_000);
        settings.put("timeLimitSeconds", 300);
        api.put("/api/sources/" + sailings.name, settings);
        api.push(sailings.query("select i::text as sailing, i as delay_min, pg_sleep(0.002)::text as reason /* " + mark
                        + " */ from generate_series(1, 60000) i")
                .replace("source: ferry", "source: " + sailings.name));
        api.push(sailings.rule());
        api.post(path + "/activate", "");
        try (var people = Executors.newVirtualThreadPerTaskExecutor()) {
            people.submit(() -> api.check(sailings.name));
            RunningService.await("running", () -> sessionsAskingFor(mark) > 0);
            RunningService.await(
                    "rows so far",
                    Duration.ofSeconds(60),
                    () -> latest().path("rowsSoFar").asLong(0) > 0);
            String id = latest().path("id").asString();
            assertThat(api.post("/api/checks/" + id + "/stop", "").path("state").asString())
                    .isEqualTo("STOPPED");
            RunningService.await("cancelled in the source", () -> sessionsAskingFor(mark) == 0);
            assertThat(latest().path("reason").asString()).isEqualTo("Stopped by Operator.");
            assertThat(api.postAnswer("/api/checks/" + id + "/stop", "").status())
                    .isEqualTo(409);
        }
        assertThat(api.get(path + "/findings").path("total").asInt()).isZero();
    }

    @Test
    void overItsTimeTheQueryIsCancelledEvenWhileRowsStream() {
        api.push(
                sailings.query(
                        "select i::text as sailing, i as delay_min, pg_sleep(0.01)::text as reason from generate_series(1, 900) i"));
        save(sailings.rule());
        api.post(path + "/activate", "");
        var check = api.check(sailings.name);
        assertThat(check.path("state").asString()).isEqualTo("FAILED");
        assertThat(check.path("reason").asString()).contains("4 s", "cancelled");
        assertThat(check.path("timeLimitMillis").asInt()).isEqualTo(4000);
    }

    @Test
    void checkThatSucceedsOnRetryNotifiesNobody() {
        sailings.late("SK-1", 20).schedule("schedule: { start: 2026-01-01T00:00, recur: FREQ=SECONDLY }");
        save(sailings.saved() + "limits: { retries: 2, retry_after: 30 minutes }\n");
        sailings.change("alter table sailing_table rename to \"" + sailings.name + "-away\"");
        api.post(path + "/activate", "");
        RunningService.await(
                "a retry",
                () -> api.get(path + "/checks")
                        .path("checks")
                        .valueStream()
                        .anyMatch(check -> check.path("failures").asInt() == 1));
        service.execute(
                "records",
                "update rule set next_slot = null where id = (select rule_id from rule_check where id = '"
                        + latest().path("id").asString() + "')");
        sailings.change("alter table \"" + sailings.name + "-away\" rename to sailing_table");
        RunningService.await("waiting", () -> latest().path("retryAt").isString() || !state().equals("RUNNING"));
        var asked = api.check(sailings.name);
        RunningService.await("an end", () -> !state().equals("RUNNING"));
        assertThat(asked.path("id").asString(""))
                .as("asking gives the check that waits")
                .isEqualTo(latest().path("id").asString());
        assertThat(state()).isIn("FIRED", "QUIET");
        api.post(path + "/pause", "");
    }

    @Test
    void clearingTooManyAwaitsApproval() {
        sailings.change("insert into sailing_table select 'SK-' || i, 20, null from generate_series(1, 40) i");
        save(sailings.saved());
        api.post(path + "/activate", "");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        sailings.change("delete from sailing_table where sailing <> 'SK-1'");
        var kept = api.check(sailings.name);
        assertThat(kept.path("state").asString()).isEqualTo("AWAITING_APPROVAL");
        assertThat(kept.path("reason").asString())
                .isEqualTo("39 of 40 open findings would clear at once, more than 50 %. Approve or discard it.");
        assertThat(api.get(path + "/findings?state=OPEN").path("total").asInt()).isEqualTo(40);
        RunningService.await("word to the owner", () -> !subjectsToOwner().isEmpty());
        assertThat(subjectsToOwner().getFirst()).startsWith("Awaiting approval: Late sailings");
        assertThat(new Mails(service).lastText(owner))
                .contains(" Europe/Oslo. They report nothing until somebody approves or discards them.");
        api.post("/api/checks/" + kept.path("id").asString() + "/discard", "");
        assertThat(state()).isEqualTo("STOPPED");

        var again = api.check(sailings.name);
        assertThat(again.path("state").asString()).isEqualTo("AWAITING_APPROVAL");
        assertThat(api.post("/api/checks/" + again.path("id").asString() + "/approve", "")
                        .path("state")
                        .asString())
                .isEqualTo("FIRED");
        assertThat(latest().path("cleared").asInt()).isEqualTo(39);
        RunningService.await("all well", () -> subjectsToOwner().getLast().startsWith("No longer awaiting approval"));
    }

    @Test
    void tooManyOpenedAwaitApprovalToo() {
        sailings.memory("memory: { key: [sailing], max_opened: 2 }");
        sailings.late("SK-1", 20).late("SK-2", 20).late("SK-3", 20).active();
        var check = api.check(sailings.name);
        assertThat(check.path("state").asString()).isEqualTo("AWAITING_APPROVAL");
        assertThat(check.path("reason").asString()).startsWith("3 findings would open at once, more than 2");
    }

    @Test
    void resultWithoutRowsIsQuietOrNotifiesOrFailsAsTheRuleSays() {
        save(sailings.schedule("schedule: { when_empty: fail }").saved());
        api.post(path + "/activate", "");
        assertThat(api.check(sailings.name).path("reason").asString()).contains("had no rows");
        save(sailings.schedule("schedule: { when_empty: notify }").rule());
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        RunningService.await(
                "both told", () -> subjectsToOwner().stream().anyMatch(subject -> subject.startsWith("No rows: ")));
        save(sailings.schedule("").rule());
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
    }

    @Test
    void failuresOfOneCauseMakeOneMailAndItsEndAnother() {
        var source = "/api/sources/" + sailings.name;
        var settings = new HashMap<>(settings());
        api.put(source, settings);
        var names = List.of(sailings.name + "-a", sailings.name + "-b");
        sailings.saved();
        for (String name : names) {
            api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\"")
                    .replace("name: " + sailings.name, "name: " + name)
                    .replace("source: ferry", "source: " + sailings.name));
            save(sailings.rule()
                    .replace("name: " + sailings.name, "name: " + name)
                    .replace("query: " + sailings.name, "query: " + name));
            api.post("/api/rules/" + name + "/activate", "");
        }
        settings.put("jdbcUrl", "jdbc:postgresql://127.0.0.1:1/ferry?connectTimeout=1");
        api.put(source, settings);
        try (var people = Executors.newVirtualThreadPerTaskExecutor()) {
            names.forEach(name -> people.submit(() -> api.check(name)));
        }
        for (String name : names)
            RunningService.await("a failure of " + name, () -> stateOf(name).equals("FAILED"));
        RunningService.await("a mail", () -> !subjectsToOwner().isEmpty());
        assertThat(subjectsToOwner()).containsExactly("Checks failing: 2 rules (source " + sailings.name + ")");
        settings.put("jdbcUrl", service.postgres().jdbcUrl("ferry"));
        api.put(source, settings);
        for (String name : names)
            assertThat(api.check(name).path("state").asString()).isEqualTo("QUIET");
        RunningService.await(
                "the end", Duration.ofSeconds(20), () -> subjectsToOwner().size() == 2);
        assertThat(subjectsToOwner().getLast()).startsWith("Checks recovered: 2 rules");
        assertThat(api.get("/api/outbox")
                        .path("messages")
                        .valueStream()
                        .anyMatch(mail -> mail.path("rule").isNull()))
                .isTrue();
    }

    @Test
    void statusAndMetricsSayWhatAnOperatorMustKnow() {
        sailings.memory("memory: { key: [sailing], max_opened: 1 }");
        sailings.late("SK-1", 20).late("SK-2", 20).active();
        api.check(sailings.name);
        var status = api.get("/api/status");
        assertThat(status.path("activeRules").asInt()).isPositive();
        assertThat(status.path("awaitingApproval").asInt()).isPositive();
        assertThat(status.path("problems").valueStream().map(each -> each.asString("")))
                .anyMatch(problem -> problem.contains("awaiting approval"));
        String metrics = api.send("GET", "/actuator/prometheus", null, Map.of()).text();
        assertThat(metrics)
                .contains(
                        "oddsentry_checks_awaiting_approval",
                        "oddsentry_checks_total{outcome=\"awaiting_approval\"}",
                        "oddsentry_messages_queued");
        assertThat(new HttpApi(service.baseUrl(), null)
                        .send("GET", "/actuator/prometheus", null, Map.of())
                        .status())
                .isEqualTo(401);
        api.post("/api/checks/" + latest().path("id").asString() + "/discard", "");
    }

    @Test
    void checkStoresTheValuesItUsed() {
        sailings.late("SK-1", 20).active();
        var check = api.check(sailings.name);
        assertThat(check.path("ruleRevision").asInt()).isEqualTo(1);
        assertThat(check.path("opened").asInt()).isEqualTo(1);
        assertThat(check.path("tookMillis").isNumber()).isTrue();
        assertThat(check.path("readAt").isString()).isTrue();
        assertThat(check.path("thresholds").isObject()).isTrue();
    }
}
