package dev.oddsentry.service.api;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** The reference of the API is made from the service's own OpenAPI document. {@code -Dodd.write-docs=true} writes it again. */
class ApiReferenceTest {
    private static final JsonMapper IN_ORDER = JsonMapper.builder()
            .enable(SerializationFeature.ORDER_MAP_ENTRIES_BY_KEYS)
            .build();
    private static final Path PAGE = Path.of("../docs/api.md");
    private static final Path CONTRACT = Path.of("../contract/openapi.json");

    private final JsonNode openApi = RunningService.get().api().get("/api/openapi.json");

    @Test
    void pageIsMadeFromTheDocument() throws IOException {
        check(PAGE, page(openApi));
    }

    /** The console's types and the generated client come from the file. */
    @Test
    void contractIsTheDocumentThatTheServicePublishes() throws IOException {
        check(CONTRACT, contract(openApi));
    }

    private static void check(Path file, String text) throws IOException {
        if (Boolean.getBoolean("odd.write-docs")) Files.writeString(file, text);
        else assertThat(Files.readString(file)).isEqualTo(text);
    }

    /** In the order of the names, since the library promises none; without the address of the service that runs here. */
    private static String contract(JsonNode openApi) {
        var document = new TreeMap<String, Object>();
        ((Map<?, ?>) IN_ORDER.convertValue(openApi, Map.class))
                .forEach((key, value) -> document.put((String) key, value));
        document.remove("servers");
        return IN_ORDER.writerWithDefaultPrettyPrinter().writeValueAsString(document) + "\n";
    }

    private static String page(JsonNode openApi) {
        var byArea = new TreeMap<String, List<String>>();
        openApi.path("paths").properties().stream()
                .sorted(Map.Entry.comparingByKey())
                .forEach(path -> path.getValue().properties().stream()
                        .sorted(Map.Entry.comparingByKey())
                        .forEach(method -> byArea.computeIfAbsent(area(path.getKey()), _ -> new ArrayList<>())
                                .add(line(openApi, path.getKey(), method.getKey(), method.getValue()))));
        var text = new StringBuilder(INTRODUCTION);
        byArea.forEach((area, lines) -> {
            text.append("\n## ").append(area).append("\n\n| call | what it does | with | body |\n|---|---|---|---|\n");
            lines.forEach(text::append);
        });
        return text.toString();
    }

    private static final String INTRODUCTION = """
            # The API

            Everything that the console and the command line do goes through it, at the address of the service. `POST /api/tokens` with a log-in and a
            password gives a token, which goes with each call as `Authorization: Bearer …`. Answers are JSON; definitions come and go as YAML too.
            A refusal is `application/problem+json` (RFC 9457) with `detail` in words, and `problems`, each with its `field`, `place` and `suggestion`.
            `Idempotency-Key` makes a repeated request for a check or an event the same one. The whole description, with the shape of every answer, is
            the OpenAPI document at `/api/openapi.json`; `/api/schemas/odd-document.schema.json` is the schema of documents.

            This page is made from that document by a test; do not edit it by hand.
            """;

    /** {@code rules} of {@code /api/rules/{name}/checks}. */
    private static String area(String path) {
        String[] part = path.split("/");
        return part.length > 2 && part[1].equals("api") ? part[2].replaceAll("\\\\..*", "") : part[1];
    }

    private static String line(JsonNode openApi, String path, String method, JsonNode call) {
        var with = new ArrayList<String>();
        for (JsonNode each : call.path("parameters")) {
            if (each.path("in").asString("").equals("path")) continue;
            with.add("`" + each.path("name").asString("") + "`"
                    + (each.path("required").asBoolean(false) ? "" : "?"));
        }
        // Neither order is promised by the library.
        with.sort(null);
        return "| `" + method.toUpperCase(Locale.ROOT) + " " + path + "` | "
                + call.path("summary").asString("") + " | " + String.join(", ", with) + " | "
                + body(openApi, call.path("requestBody").path("content")) + " |\n";
    }

    private static String body(JsonNode openApi, JsonNode content) {
        for (var each : content.properties()) {
            if (!each.getKey().contains("json")) return each.getKey();
            var schema = each.getValue().path("schema");
            String reference = schema.path("$ref").asString("");
            var known = reference.isEmpty()
                    ? schema
                    : openApi.path("components").path("schemas").path(reference.replaceAll(".*/", ""));
            var required = new ArrayList<String>();
            known.path("required").forEach(name -> required.add(name.asString("")));
            var fields = new ArrayList<String>();
            known.path("properties")
                    .properties()
                    .forEach(field ->
                            fields.add("`" + field.getKey() + "`" + (required.contains(field.getKey()) ? "" : "?")));
            fields.sort(null);
            return String.join(", ", fields);
        }
        return "";
    }
}
