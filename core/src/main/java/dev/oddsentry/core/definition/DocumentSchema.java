package dev.oddsentry.core.definition;

import dev.oddsentry.core.document.Part;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** The JSON Schema of documents, made from the tables of their fields. */
public final class DocumentSchema {
    private static final List<Part<?>> KINDS = List.of(
            QueryFields.PART,
            RuleFields.PART,
            ThresholdFields.PART,
            CalendarFields.PART,
            LayoutFields.SHARED,
            RecipientListFields.PART,
            RoundUpFields.PART);

    private DocumentSchema() {}

    /** The kinds of document, and then each part that they refer to, once. */
    public static List<Part<?>> parts() {
        var parts = new LinkedHashMap<String, Part<?>>();
        for (var kind : KINDS) {
            var waiting = new ArrayDeque<Part<?>>(List.of(kind));
            while (!waiting.isEmpty()) {
                var part = waiting.removeFirst();
                if (parts.putIfAbsent(part.name(), part) == null)
                    part.fields()
                            .forEach(
                                    field -> waiting.addAll(field.type().shape().parts()));
            }
        }
        var kindsFirst = new ArrayList<>(KINDS);
        parts.values().stream().filter(part -> !KINDS.contains(part)).forEach(kindsFirst::add);
        return kindsFirst;
    }

    public static Map<String, Object> tree() {
        var parts = new LinkedHashMap<String, Object>();
        parts().forEach(part -> parts.put(part.name(), part.schema()));
        var schema = new LinkedHashMap<String, Object>();
        schema.put("$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.put("title", "A definition of Odd Sentry");
        schema.put(
                "description",
                "Queries, rules, thresholds, calendars, layouts, lists of recipients and round-ups, in YAML or JSON.");
        schema.put("type", "object");
        schema.put("required", List.of("kind", "name"));
        schema.put(
                "properties",
                Map.of("kind", Map.of("enum", KINDS.stream().map(Part::name).toList())));
        schema.put("allOf", KINDS.stream().map(part -> onlyIf(part.name())).toList());
        schema.put("$defs", parts);
        return schema;
    }

    private static Map<String, Object> onlyIf(String kind) {
        var when = new LinkedHashMap<String, Object>();
        when.put("if", Map.of("properties", Map.of("kind", Map.of("const", kind))));
        when.put("then", Map.of("$ref", "#/$defs/" + kind));
        return when;
    }
}
