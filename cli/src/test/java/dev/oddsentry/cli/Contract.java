package dev.oddsentry.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The published description of the API: what a test lets the service answer must be something that it could answer. */
final class Contract {
    private static final JsonNode DOCUMENT = new JsonMapper().readTree(Path.of("../contract/openapi.json"));

    private Contract() {}

    /** The names in an answer that the operation does not have; a test may leave names out. */
    static List<String> unknownNames(String call, JsonNode answer) {
        String method = call.substring(0, call.indexOf(' ')).toLowerCase(java.util.Locale.ROOT);
        String path = call.substring(call.indexOf(' ') + 1).replaceAll("\\?.*", "");
        var operation = operation(path, method);
        var unknown = new ArrayList<String>();
        if (operation == null) {
            unknown.add("no operation " + method + " " + path);
            return unknown;
        }
        for (var response : operation.path("responses").properties())
            if (response.getKey().startsWith("2"))
                for (JsonNode content : response.getValue().path("content").values())
                    compare("", content.path("schema"), answer, unknown);
        return unknown;
    }

    private static JsonNode operation(String path, String method) {
        JsonNode found = null;
        for (Map.Entry<String, JsonNode> each : DOCUMENT.path("paths").properties()) {
            String template = Pattern.quote(each.getKey()).replaceAll("\\{[a-z]+}", "\\\\E[^/]+\\\\Q");
            boolean exact = each.getKey().equals(path);
            if ((exact || (found == null && path.matches(template)))
                    && each.getValue().has(method)) found = each.getValue().path(method);
            if (exact && found != null) return found;
        }
        return found;
    }

    private static void compare(String at, JsonNode schema, JsonNode answer, List<String> unknown) {
        if (schema.has("$ref"))
            compare(
                    at,
                    DOCUMENT.path("components")
                            .path("schemas")
                            .path(schema.path("$ref").asString().replaceAll(".*/", "")),
                    answer,
                    unknown);
        for (JsonNode either : schema.path("anyOf")) compare(at, either, answer, unknown);
        if (answer.isArray()) for (JsonNode item : answer) compare(at + "[]", schema.path("items"), item, unknown);
        if (!answer.isObject() || !schema.has("properties")) return;
        for (var field : answer.properties()) {
            String name = at + "." + field.getKey();
            if (!schema.path("properties").has(field.getKey())) unknown.add(name);
            else compare(name, schema.path("properties").path(field.getKey()), field.getValue(), unknown);
        }
    }
}
