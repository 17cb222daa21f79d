package dev.oddsentry.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.ServiceProcess;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;

/** Single requests that each once ended the service, several at a time, against a process of little memory that would end if it were used up. */
class HeavyRequestsTest {
    private static final JsonMapper JSON = new JsonMapper();
    private static final Duration LONGEST = Duration.ofSeconds(30);
    /** More of them is a matter of patience: {@code -Dodd.rounds=10}. */
    private static final int ROUNDS = Integer.getInteger("odd.rounds", 1);

    private final RunningService service = RunningService.get();
    private final String database = "records_heavy_" + System.nanoTime();

    @TempDir
    Path folder;

    private static Map<String, Object> query(String sql) {
        return Map.of(
                "document",
                JSON.writeValueAsString(Map.of("kind", "query", "name", "heavy", "source", "ferry", "sql", sql)));
    }

    private static String rule(String name, String exceptions) {
        return "kind: rule\nname: heavy\nquery: " + name + "\nexceptions: " + exceptions
                + "\nmemory: { key: [sailing] }\n";
    }

    /** By what they are. */
    private static Map<String, Callable<HttpApi.Answer>> requests(HttpApi api, String name) {
        var json = Map.of("Content-Type", "application/json");
        var requests = new LinkedHashMap<String, Callable<HttpApi.Answer>>();
        requests.put(
                "rows of a megabyte",
                () -> api.postAnswer(
                        "/api/query-runs", query("select repeat('x', 1000000) as a from generate_series(1, 1000)")));
        requests.put(
                "wide rows",
                () -> api.postAnswer(
                        "/api/query-runs", query("select n, repeat('y', 45000) as a from generate_series(1, 3000) n")));
        requests.put(
                "one cell of 200 MB",
                () -> api.postAnswer("/api/query-runs", query("select repeat('x', 200000000) as a")));
        requests.put(
                "many columns",
                () -> api.postAnswer(
                        "/api/query-runs", query("select " + columns(1_600) + " from generate_series(1, 2000)")));
        requests.put(
                "repetitions of repetitions",
                () -> api.postYaml("/api/preview", rule(name, "reason matches '(((a{1000}){1000}){100})'")));
        requests.put(
                "digits",
                () -> api.postYaml("/api/preview", rule(name, "delay_min > 1e999 * " + "1e999 * ".repeat(900) + "2")));
        requests.put(
                "a long sum", () -> api.postYaml("/api/preview", rule(name, "delay_min > 1" + " + 1".repeat(20_000))));
        requests.put(
                "deep parentheses",
                () -> api.postYaml("/api/preview", rule(name, "(".repeat(20_000) + "true" + ")".repeat(20_000))));
        requests.put(
                "addresses",
                () -> api.pushAnswer(
                        rule(name, "true") + "delivery: { to: [" + "a@b.example, ".repeat(40_000) + "] }\n"));
        requests.put(
                "labels",
                () -> api.pushAnswer(
                        "kind: query\nname: heavy\nsource: ferry\nsql: select 1 as a\ncolumns:\n" + labels(80_000)));
        requests.put("deep YAML", () -> api.pushAnswer("kind: rule\nname: " + "[".repeat(100_000)));
        requests.put(
                "times of a year",
                () -> api.send(
                        "GET",
                        "/api/dates?zone=UTC&recur=FREQ%3DYEARLY%3BBYHOUR%3D" + upTo(23) + "%3BBYMINUTE%3D" + upTo(59)
                                + "%3BBYSECOND%3D" + upTo(59),
                        null,
                        Map.of()));
        requests.put(
                "holidays by the second",
                () -> api.send(
                        "POST", "/api/calendars/heavy/holidays.ics", ics(), Map.of("Content-Type", "text/calendar")));
        requests.put(
                "a million lists",
                () -> api.send("POST", "/api/query-runs", "[" + "[],".repeat(600_000) + "[]]", json));
        requests.put("nested lists", () -> api.send("POST", "/api/query-runs", "[".repeat(900_000), json));
        requests.put("a body of 18 MB", () -> api.send("POST", "/api/query-runs", " ".repeat(18_000_000), json));
        return requests;
    }

    private static String columns(int number) {
        var columns = new ArrayList<String>();
        for (int i = 0; i < number; i++) columns.add("'a value of some length' as c" + i);
        return String.join(", ", columns);
    }

    private static String labels(int number) {
        var labels = new StringBuilder();
        for (int i = 0; i < number; i++) labels.append("  c").append(i).append(": { label: x }\n");
        return labels.toString();
    }

    private static String upTo(int last) {
        var numbers = new ArrayList<String>();
        for (int i = 0; i <= last; i++) numbers.add(String.valueOf(i));
        return String.join("%2C", numbers);
    }

    private static String ics() {
        return "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTAMP:20260101T000000Z\r\nDTSTART;VALUE=DATE:20260101\r\nRRULE:FREQ=SECONDLY\r\n"
                + "SUMMARY:x\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
    }

    @Test
    void requestsThatAskForTooMuchAreRefusedAndTheServiceLives() throws Exception {
        service.execute("postgres", "create database " + database);
        var node = ServiceProcess.start(
                service.postgres().jdbcUrl(database),
                folder,
                "-Xmx320m",
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "-XX:+ExitOnOutOfMemoryError");
        try (var people = Executors.newVirtualThreadPerTaskExecutor()) {
            var api = node.operator();
            service.useFerry(api);
            var sailings = new LateSailings(service).late("SK-1", 20);
            api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
            api.push(sailings.rule());
            api.post("/api/rules/" + sailings.name + "/activate", "");
            long pid = node.pid();
            for (int round = 0; round < ROUNDS; round++) {
                var answers = new LinkedHashMap<String, Future<Timed>>();
                requests(api, sailings.name)
                        .forEach((what, request) -> answers.put(what, people.submit(() -> timed(request))));
                for (var each : answers.entrySet()) {
                    var answer = each.getValue().get();
                    assertThat(answer.status).as(each.getKey()).isBetween(200, 499);
                    assertThat(answer.took).as(each.getKey()).isLessThan(LONGEST);
                }
            }
            assertThat(node.pid()).isEqualTo(pid);
            assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(1);
            assertThat(node.logged()).doesNotContain("OutOfMemory", "StackOverflow");
        } finally {
            node.kill();
        }
    }

    private record Timed(int status, Duration took) {}

    private static Timed timed(Callable<HttpApi.Answer> request) throws Exception {
        long began = System.nanoTime();
        return new Timed(request.call().status(), Duration.ofNanos(System.nanoTime() - began));
    }
}
