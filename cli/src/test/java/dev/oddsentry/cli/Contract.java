package dev.oddsentry.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The published description of the API: what a test lets the service answer must be something that it could answer. */
final class Contract {
    private static final JsonMapper JSON = new JsonMapper();
    private static final JsonNode DOCUMENT = JSON.readTree(Path.of("../contract/openapi.json"));

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

    /** The answer as the service would give it, with something in each field that a test leaves out. */
    static JsonNode completed(String call, JsonNode answer) {
        String method = call.substring(0, call.indexOf(' ')).toLowerCase(java.util.Locale.ROOT);
        var operation = operation(call.substring(call.indexOf(' ') + 1).replaceAll("\\?.*", ""), method);
        if (operation == null) return answer;
        for (var response : operation.path("responses").properties())
            if (response.getKey().startsWith("2"))
                for (JsonNode content : response.getValue().path("content").values())
                    complete(content.path("schema"), answer);
        return answer;
    }

    private static void complete(JsonNode written, JsonNode answer) {
        var schema = resolved(written);
        for (JsonNode item : answer.isArray() ? answer : JSON.createArrayNode()) complete(schema.path("items"), item);
        if (!(answer instanceof ObjectNode object)) return;
        for (JsonNode required : schema.path("required")) {
            String name = required.asString();
            if (!object.has(name))
                object.set(name, something(schema.path("properties").path(name)));
        }
        for (var field : object.properties()) {
            var properties = schema.path("properties");
            complete(
                    properties.has(field.getKey())
                            ? properties.path(field.getKey())
                            : schema.path("additionalProperties"),
                    field.getValue());
        }
    }

    private static JsonNode resolved(JsonNode schema) {
        if (schema.has("$ref"))
            return DOCUMENT.path("components")
                    .path("schemas")
                    .path(schema.path("$ref").asString().replaceAll(".*/", ""));
        return schema.has("anyOf") ? resolved(schema.path("anyOf").path(0)) : schema;
    }

    private static JsonNode something(JsonNode written) {
        if (written.has("anyOf") || written.path("type").isArray())
            return JSON.getNodeFactory().nullNode();
        var schema = resolved(written);
        if (schema.has("enum")) return schema.path("enum").path(0);
        return switch (schema.path("type").asString("object")) {
            case "array" -> JSON.createArrayNode();
            case "boolean" -> JSON.getNodeFactory().booleanNode(false);
            case "integer", "number" -> JSON.getNodeFactory().numberNode(0);
            case "string" ->
                JSON.getNodeFactory()
                        .stringNode(
                                switch (schema.path("format").asString("")) {
                                    case "date-time" -> "2026-11-24T04:40:00Z";
                                    case "date" -> "2026-11-24";
                                    case "uuid" -> "4c1d8a52-7c0e-4a53-9d0c-0d4f5a2b6c11";
                                    default -> "";
                                });
            default -> {
                var object = JSON.createObjectNode();
                complete(schema, object);
                yield object;
            }
        };
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
