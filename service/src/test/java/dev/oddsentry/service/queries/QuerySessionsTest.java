package dev.oddsentry.service.queries;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.SilentLine;
import java.io.IOException;
import java.net.URI;
import java.time.Duration;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What a query finds when it is run: its zone, its parameters with their types, and a line that may fall silent. */
class QuerySessionsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();

    private static String query(String sql, String parameters) {
        return "kind: query\nname: session_" + System.nanoTime() + "\nsource: ferry\nsql: |\n  " + sql + "\n"
                + (parameters.isEmpty() ? "" : "parameters: { " + parameters + " }\n");
    }

    private JsonNode run(String sql, String parameters, Map<String, String> values, String zone) {
        return api.post("/api/query-runs", Map.of("document", query(sql, parameters), "values", values, "zone", zone));
    }

    private static String cell(JsonNode ran) {
        return ran.path("rows").path(0).path(0).asString();
    }

    @ParameterizedTest
    @CsvSource({
        "UTC, 2026-03-01",
        "Europe/Oslo, 2026-03-02",
        "America/New_York, 2026-03-01",
        "Pacific/Apia, 2026-03-02",
        "+02:00, 2026-03-02",
        "-05:30, 2026-03-01"
    })
    void datesAreThoseOfTheZoneThatWasChosen(String zone, String date) {
        assertThat(cell(run("select timestamptz '2026-03-01 23:30+00' :: date as day", "", Map.of(), zone)))
                .isEqualTo(date);
    }

    @Test
    void asManyRowsAreGivenAsAreAskedFor() {
        String document = query("select i from generate_series(1, 900) i", "");
        assertThat(api.post("/api/query-runs", Map.of("document", document)).path("rows"))
                .hasSize(200);
        assertThat(api.post("/api/query-runs", Map.of("document", document, "rows", 20_000))
                        .path("rows"))
                .hasSize(900);
        assertThat(api.postAnswer("/api/query-runs", Map.of("document", document, "rows", 20_001))
                        .status())
                .isEqualTo(422);
    }

    @Test
    void withoutAChoiceAQueryByHandRunsInTheZoneOfItsSource() {
        service.ferry("alter role ferry_reader set timezone to 'Asia/Kolkata'");
        try {
            api.put(
                    "/api/sources/kolkata",
                    Map.of(
                            "jdbcUrl",
                            service.postgres().jdbcUrl("ferry"),
                            "username",
                            "ferry_reader",
                            "password",
                            "reader"));
            String document =
                    query("select current_setting('TimeZone') as zone", "").replace("source: ferry", "source: kolkata");
            var ran = api.post("/api/query-runs", Map.of("document", document, "values", Map.of()));
            assertThat(cell(ran)).isEqualTo("Asia/Kolkata");
            assertThat(ran.path("zone").asString()).isEqualTo("Asia/Kolkata");
            assertThat(api.get("/api/sources/kolkata/zone").path("zone").asString())
                    .isEqualTo("Asia/Kolkata");
        } finally {
            service.ferry("alter role ferry_reader reset timezone");
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "select :day + interval '1 day' as next | day: { type: date } | 2026-03-01 | 2026-03-02 00:00",
                "select :day - 1 as earlier | day: { type: date } | 2026-03-01 | 2026-02-28",
                "select :at + interval '90 minutes' as later | at: { type: timestamp } | 2026-03-01T10:00 | 2026-03-01 11:30",
                "select round(:n / 2, 1) as half | n: { type: number } | 5 | 2.5",
                "select not :yes as no | yes: { type: truth } | true | false",
                "select upper(:word) as loud | word: { type: text } | ho | HO"
            })
    void parametersHaveTheirDeclaredTypes(String sql, String parameters, String value, String expected) {
        String name = parameters.substring(0, parameters.indexOf(':'));
        assertThat(cell(run(sql, parameters, Map.of(name, value), "UTC"))).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource({"text", "number", "truth", "date", "timestamp", "instant"})
    void anOptionalParameterWithoutValueIsNull(String type) {
        String optional = "x: { type: " + type + ", optional: true }";
        assertThat(cell(run("select :x is null as none", optional, Map.of(), "UTC")))
                .isEqualTo("true");
        assertThat(cell(run("select coalesce(:x, :x) is null as none", optional, Map.of(), "UTC")))
                .isEqualTo("true");
        assertThat(api.postAnswer(
                                "/api/query-runs",
                                Map.of("document", query("select :x is null as none", "x: { type: " + type + " }")))
                        .text())
                .contains("values.x");
    }

    @Test
    void aRuleIsCheckedInItsOwnZone() {
        var sailings = new LateSailings(service);
        service.api()
                .push(
                        sailings.query(
                                "select 'SK-1' as sailing, (timestamptz '2026-03-01 23:30+00' :: date - date '2026-03-01') as delay_min, null as reason"));
        service.api().push(sailings.exceptions("delay_min = 1").rule());
        service.api().post("/api/rules/" + sailings.name + "/activate", "");
        assertThat(api.check(sailings.name).path("exceptions").asInt()).isEqualTo(1);
    }

    @Test
    void aLineThatFallsSilentEndsTheCheckAndFreesItsWorker() throws IOException {
        var own = URI.create(service.postgres().jdbcUrl("ferry").substring("jdbc:".length()));
        try (var line = new SilentLine(own.getPort())) {
            api.put(
                    "/api/sources/silent",
                    Map.of(
                            "jdbcUrl",
                            "jdbc:postgresql://127.0.0.1:" + line.port() + "/ferry",
                            "username",
                            "ferry_reader",
                            "password",
                            "reader",
                            "timeLimitSeconds",
                            2));
            var sailings = new LateSailings(service).late("SK-1", 20);
            api.push(sailings.query("select sailing, delay_min, reason, pg_sleep(1)::text as slept from \""
                            + sailings.name + "\"")
                    .replace("source: ferry", "source: silent"));
            api.push(sailings.rule());
            api.post("/api/rules/" + sailings.name + "/activate", "");
            assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
            line.fallSilent(true);
            long began = System.nanoTime();
            var check = api.check(sailings.name);
            assertThat(Duration.ofNanos(System.nanoTime() - began)).isLessThan(Duration.ofSeconds(40));
            assertThat(check.path("state").asString()).isEqualTo("FAILED");
            line.fallSilent(false);
            RunningService.await(
                    "the source again",
                    Duration.ofSeconds(60),
                    () -> api.check(sailings.name).path("state").asString().equals("QUIET"));
        }
    }
}
