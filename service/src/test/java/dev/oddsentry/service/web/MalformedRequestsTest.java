package dev.oddsentry.service.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RawHttp;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestInstance;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Requests that are wrong in every way that a seeded generator knows, over all operations of the published document: paths, queries, headers, bodies. Each is
 * refused as problem+json within five seconds, none is an error of the service, and nothing is left behind.
 */
@TestInstance(TestInstance.Lifecycle.PER_CLASS)
class MalformedRequestsTest {
    private static final int REQUESTS = Integer.getInteger("odd.requests", 6_000);
    private static final long SEED = Long.getLong("odd.seed", 20_261_128);
    private static final JsonMapper JSON = new JsonMapper();
    private static final Duration LONGEST = Duration.ofSeconds(5);

    private static final List<String> TEXTS = List.of(
            "",
            " ",
            "..",
            ".",
            "/",
            "a/b",
            "a\\b",
            "a;b",
            "é",
            "𝒜",
            "\u0001",
            "\u202e",
            "'",
            "\"",
            "<b>",
            "%",
            "%00",
            "-1",
            "0",
            "1",
            "99999999999999999999",
            "1e99999999999",
            "NaN",
            "null",
            "true",
            "2026-02-30",
            "9999-99-99",
            "+999999999-12-31",
            "-999999999-01-01T00:00:00Z",
            "2026-11-28T00:00:00Z",
            "Europe/Nowhere",
            "today - 99999999999 days",
            "start of month + 9999999 months",
            "FREQ=SECONDLY;BYMONTH=2;BYMONTHDAY=30",
            "FREQ=DAILY",
            "FREQ=YEARLY;BYHOUR=0,1,2,3,4,5,6;BYMINUTE=0,1,2,3,4,5,6,7,8,9;BYSECOND=0,1,2,3,4,5,6,7,8,9",
            "00000000-0000-0000-0000-000000000000",
            "a@b@c",
            "ferry",
            "x".repeat(5_000),
            "((((((((((",
            "{{#rows}}{{#rows}}",
            "jdbc:postgresql://127.0.0.1:1/x?readOnlyMode=ignore");

    private static final List<String> JSON_VALUES = List.of(
            "null",
            "[]",
            "{}",
            "[null]",
            "{\"\":null}",
            "0",
            "-1",
            "1e99999999999",
            "1e-99999999999",
            "99999999999999999999",
            "true",
            "\"\"",
            "\"\\u0000\"",
            "\"\\ud800\"",
            "[[[[[[[[]]]]]]]]",
            "\"x\"",
            "[\"x\", null, 3]",
            "\"2026-13-45\"",
            "\"" + "y".repeat(3_000) + "\"");

    private static final List<String> BODIES = List.of(
            "",
            "{",
            "}",
            "[",
            "null",
            "nul",
            "\"\"",
            "0",
            "[]",
            "{}",
            "{\"a\":}",
            "\u0000",
            "\ufeff{}",
            "{} {}",
            "[".repeat(20_000),
            "{\"a\":".repeat(5_000),
            "\"" + "z".repeat(200_000),
            "kind: rule\nname: x\nquery: " + "[".repeat(5_000),
            "kind: query\nname: x\nsource: ferry\nsql: select '" + "a''".repeat(3_000) + "'\n",
            "kind: rule\nname: x\nquery: q\nexceptions: route matches '(((a{1000}){1000}){100})'\n",
            "a: &a [*a, *a]\n",
            "!!java.lang.Runtime {}\n",
            "kind: rule\nname: x\ndelivery: { to: [" + "a@b.example, ".repeat(40_000) + "] }\n",
            "kind: query\nname: x\nsource: ferry\nsql: select 1\ncolumns:\n" + labels(),
            "BEGIN:VCALENDAR\nVERSION:2.0\nBEGIN:VEVENT\nDTSTART;VALUE=DATE:20260101\nRRULE:FREQ=SECONDLY\nSUMMARY:x\nEND:VEVENT\nEND:VCALENDAR\n",
            "kind: calendar\nname: x\nholidays: { 2026-13-01: x }\n",
            "key,value\n\u0000,1\n");

    private static final List<String> CONTENT_TYPES = List.of(
            "application/json",
            "application/json",
            "application/json",
            "application/yaml",
            "text/csv",
            "text/calendar",
            "*/*",
            "application/*",
            "json",
            "",
            ";",
            "text/plain; charset=nowhere",
            "multipart/form-data",
            "application/x-www-form-urlencoded",
            "application/json; charset=utf-16");

    private static final List<String> HEADERS = List.of(
            "Accept: text/html",
            "Accept: image/png",
            "Accept: nothing",
            "Accept: */*;q=x",
            "Accept-Language: " + "x".repeat(300),
            "Cookie: odd_session=AAAA",
            "Cookie: odd_session=\u0001",
            "Cookie: odd_session=MDAwMDAwMDAtMDAwMC0wMDAwLTAwMDAtMDAwMDAwMDAwMAAA",
            "Cookie: odd_session=JCVe; XSRF-TOKEN=%",
            "Cookie: odd_known=1.x",
            "Range: bytes=9-1",
            "If-None-Match: \"",
            "Idempotency-Key: " + "k".repeat(3_000),
            "Idempotency-Key: \u00e9",
            "Expect: x",
            "Transfer-Encoding: gzip",
            "Content-Encoding: br",
            "X-HTTP-Method-Override: TRACE",
            "Origin: null");

    private final RunningService service = RunningService.get();
    private final RawHttp http = new RawHttp(service.baseUrl());
    private final Random random = new Random(SEED);
    private final JsonNode api = service.api().get("/api/openapi.json");
    private final String token = service.api()
            .post("/api/tokens", Map.of("login", "operator", "password", RunningService.OPERATOR_PASSWORD))
            .path("token")
            .asString();

    /** Of the body at hand; some schemas contain themselves. */
    private int values;

    private static String labels() {
        var labels = new StringBuilder();
        for (int i = 0; i < 40_000; i++) labels.append("  c").append(i).append(": { label: x }\n");
        return labels.toString();
    }

    private record Operation(String method, String path, JsonNode definition) {}

    private List<Operation> operations() {
        var operations = new ArrayList<Operation>();
        api.path("paths")
                .properties()
                .forEach(path -> path.getValue().properties().forEach(method -> {
                    operations.add(
                            new Operation(method.getKey().toUpperCase(Locale.ROOT), path.getKey(), method.getValue()));
                }));
        return operations;
    }

    @Test
    void requestsForWhatIsNotThereAreRefusedInWordsAndLeaveNothingBehind() throws IOException {
        String before = stored();
        send(REQUESTS / 2, TEXTS);
        assertThat(stored()).isEqualTo(before);
    }

    @Test
    void requestsForARuleThatIsThereAreAnsweredInWordsAndTheNextRuleIsChecked() throws IOException {
        var attacked = new LateSailings(service).late("SK-1", 20).active();
        var names = new ArrayList<>(TEXTS);
        for (int i = 0; i < TEXTS.size(); i++) names.add(attacked.name);
        send(REQUESTS / 2, names);
        var other = new LateSailings(service).late("SK-2", 20).active();
        assertThat(service.api().check(other.name).path("exceptions").asInt()).isEqualTo(1);
    }

    private void send(int requests, List<String> names) throws IOException {
        var operations = operations();
        assertThat(operations).hasSizeGreaterThan(100);
        var wrong = new ArrayList<String>();
        for (int i = 0; i < requests && wrong.size() < 20; i++) {
            var operation = operations.get(i % operations.size());
            // One answers for as long as somebody listens; the others are pages for people.
            if (operation.path.equals("/api/changes") || operation.path.matches("/(leave|your-mail)/.*")) continue;
            String request = request(operation, names);
            var answer = http.send(
                    head(request),
                    request.substring(request.indexOf("\r\n\r\n") + 4).getBytes(StandardCharsets.UTF_8));
            if (isFine(answer)) continue;
            wrong.add("%d, seed %d: %s %s %d ms %s%n    %s"
                    .formatted(
                            i,
                            SEED,
                            answer.status(),
                            answer.contentType(),
                            answer.took().toMillis(),
                            shortened(answer.body()),
                            shortened(request)));
        }
        assertThat(wrong).isEmpty();
        assertThat(service.api().get("/api/session").path("login").asString()).isEqualTo("operator");
    }

    private static final Pattern CLASS_OF_EXCEPTION = Pattern.compile("\\wException\\b");

    private static boolean isFine(RawHttp.Answer answer) {
        boolean refused = answer.status() >= 400;
        boolean tells = CLASS_OF_EXCEPTION.matcher(answer.body()).find()
                || answer.body().contains("\tat ");
        return answer.status() < 500
                && answer.status() != 0
                && (!refused || answer.isProblem())
                && answer.took().compareTo(LONGEST) < 0
                && !tells;
    }

    private String stored() {
        return String.join(
                " ",
                List.of(
                                "rule",
                                "definition_revision",
                                "rule_check",
                                "finding",
                                "message",
                                "person",
                                "source",
                                "threshold_value")
                        .stream()
                        .map(table -> table + "=" + service.count("records", "select count(*) from " + table))
                        .toList());
    }

    private static String shortened(String text) {
        String flat = text.replace("\r\n", " | ").replace("\n", "\\n");
        return flat.length() <= 300 ? flat : flat.substring(0, 300) + "…";
    }

    private static String head(String request) {
        return request.substring(0, request.indexOf("\r\n\r\n") + 4);
    }

    private String request(Operation operation, List<String> names) {
        String path = Pattern.compile("\\{[^}]*\\}")
                .matcher(operation.path)
                .replaceAll(_ -> Matcher.quoteReplacement(encoded(pick(names))));
        var query = new ArrayList<String>();
        for (JsonNode parameter : operation.definition.path("parameters")) {
            if (parameter.path("in").asString("").equals("query") && random.nextInt(3) > 0)
                query.add(parameter.path("name").asString() + "=" + encoded(pick(TEXTS)));
        }
        if (random.nextInt(20) == 0) query.add(pick(List.of("%", "%zz", "%c0%af=1", "=", "&&&", "a=%00", "[x]=1")));
        var headers = new StringBuilder("Host: 127.0.0.1\r\nConnection: close\r\n");
        if (random.nextInt(12) > 0)
            headers.append("Authorization: Bearer ")
                    .append(random.nextInt(20) == 0 ? pick(TEXTS).replaceAll("[\\r\\n]", "") : token)
                    .append("\r\n");
        if (random.nextInt(5) == 0) headers.append(pick(HEADERS)).append("\r\n");
        String method = random.nextInt(40) == 0
                ? pick(List.of("TRACE", "OPTIONS", "HEAD", "PATCH", "FOO", "DELETE"))
                : operation.method;
        // Of HEAD no body tells what is wrong.
        if (method.equals("HEAD")) method = "PATCH";
        String body = method.equals("GET") || method.equals("DELETE") ? "" : body(operation);
        if (!body.isEmpty() || random.nextInt(4) == 0)
            headers.append("Content-Type: ").append(pick(CONTENT_TYPES)).append("\r\n");
        if (headers.indexOf("Transfer-Encoding") < 0)
            headers.append("Content-Length: ")
                    .append(body.getBytes(StandardCharsets.UTF_8).length)
                    .append("\r\n");
        return method + " " + path + (query.isEmpty() ? "" : "?" + String.join("&", query)) + " HTTP/1.1\r\n" + headers
                + "\r\n" + body;
    }

    private String encoded(String text) {
        // Once in a while as it is, where that leaves a request line.
        if (random.nextInt(10) == 0 && !text.isEmpty() && text.chars().noneMatch(c -> c <= ' ' || c == 0x7f))
            return text;
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }

    private String body(Operation operation) {
        var schema = operation.definition.at("/requestBody/content/application~1json/schema");
        if (schema.isMissingNode() || random.nextInt(4) == 0) return pick(BODIES);
        values = 0;
        return json(schema, 0);
    }

    /** Of the right shape, mostly, with a wrong value somewhere. */
    private String json(JsonNode schema, int depth) {
        if (depth > 6 || ++values > 200 || random.nextInt(5) == 0) return pick(JSON_VALUES);
        if (schema.has("$ref"))
            return json(api.at(schema.path("$ref").asString().substring(1)), depth);
        return switch (schema.path("type").asString("")) {
            case "object" -> {
                var fields = new ArrayList<String>();
                schema.path("properties").properties().forEach(field -> {
                    if (random.nextInt(6) > 0)
                        fields.add("\"" + field.getKey() + "\":" + json(field.getValue(), depth + 1));
                });
                yield "{" + String.join(",", fields) + "}";
            }
            case "array" -> "[" + json(schema.path("items"), depth + 1) + "]";
            case "integer", "number" -> pick(List.of("0", "1", "-1", "7", "2147483648", "1e9", "1e99999999999"));
            case "boolean" -> pick(List.of("true", "false"));
            default ->
                schema.has("enum") && random.nextInt(3) > 0
                        ? schema.path("enum")
                                .path(random.nextInt(schema.path("enum").size()))
                                .toString()
                        : text();
        };
    }

    private String text() {
        return JSON.writeValueAsString(random.nextInt(6) == 0 ? pick(BODIES) : pick(TEXTS));
    }

    private <T> T pick(List<T> from) {
        return from.get(random.nextInt(from.size()));
    }
}
