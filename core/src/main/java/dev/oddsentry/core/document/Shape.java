package dev.oddsentry.core.document;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * What may stand in a field, for those who write a document.
 *
 * @param words for the reference page, such as {@code number from 1 to 20}
 * @param schema in JSON Schema's terms
 * @param parts that the schema refers to
 */
public record Shape(String words, Map<String, Object> schema, List<Part<?>> parts) {
    public Shape(String words, Map<String, Object> schema) {
        this(words, schema, List.of());
    }

    /** A text without further rules, described in words. */
    public static Shape text(String words) {
        return new Shape(words, Map.of("type", "string"));
    }

    /** A text, or the number or truth value that it may also be written as. */
    public static Shape scalar(String words) {
        return new Shape(words, Map.of("type", List.of("string", "number", "boolean")));
    }

    /** One of these, or a list of them. */
    public Shape orList() {
        var list = Map.of("type", "array", "items", schema);
        return new Shape("one or more: " + words, Map.of("oneOf", List.of(list, schema)), parts);
    }

    /** A list of these. */
    public Shape inList() {
        return new Shape("list: " + words, Map.of("type", "array", "items", schema), parts);
    }

    /** One of these by each name. */
    Shape byName() {
        return new Shape("by name: " + words, Map.of("type", "object", "additionalProperties", schema), parts);
    }

    /** This or another. */
    public Shape or(Shape other) {
        var both = new ArrayList<Part<?>>(parts);
        both.addAll(other.parts);
        return new Shape(words + "; or " + other.words, Map.of("oneOf", List.of(schema, other.schema)), both);
    }
}
