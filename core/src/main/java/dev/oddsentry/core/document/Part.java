package dev.oddsentry.core.document;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * A part of a document as a table of its fields, in the order in which they are written.
 *
 * @param <P> what the part is read to
 */
public final class Part<P> {
    private final String name;
    private final String help;
    private final List<Field<P, ?>> fields = new ArrayList<>();

    /** @param name in the JSON Schema and on the reference page, such as {@code memory} */
    public Part(String name, String help) {
        this.name = name;
        this.help = help;
    }

    /**
     * Adds a field.
     *
     * @param of its value in what the part was read to; null where it is not written
     * @param help a sentence or two for those who write it
     */
    public <V> Field<P, V> field(String called, FieldType<V> type, Function<P, @Nullable V> of, String help) {
        var field = new Field<P, V>(called, type, of, help);
        fields.add(field);
        return field;
    }

    /** Adds the fields of another part, which stand among those of this one. */
    public <Q> Part<P> include(Part<Q> other, Function<P, @Nullable Q> of) {
        other.fields.forEach(field -> fields.add(field.within(of)));
        return this;
    }

    /** The part as an ordered tree, without what is usual. */
    public Map<String, Object> print(P value) {
        var printed = new LinkedHashMap<String, Object>();
        fields.forEach(field -> field.print(value, printed));
        return printed;
    }

    public String name() {
        return name;
    }

    public String help() {
        return help;
    }

    public List<Field<P, ?>> fields() {
        return List.copyOf(fields);
    }

    Field<P, ?> field(String called) {
        return fields.stream()
                .filter(field -> field.name().equals(called))
                .findFirst()
                .orElseThrow();
    }

    public Shape shape() {
        return new Shape("fields of [" + name + "](#" + name + ")", Map.of("$ref", "#/$defs/" + name), List.of(this));
    }

    /** The part in JSON Schema's terms. */
    public Map<String, Object> schema() {
        var properties = new LinkedHashMap<String, Object>();
        fields.forEach(field -> {
            var described = new LinkedHashMap<>(field.type().shape().schema());
            String usual = field.usualWords();
            described.put("description", usual.isEmpty() ? field.help() : field.help() + " Default: " + usual + ".");
            properties.put(field.name(), described);
        });
        var schema = new LinkedHashMap<String, Object>();
        schema.put("type", "object");
        schema.put("description", help);
        schema.put("additionalProperties", false);
        var required =
                fields.stream().filter(Field::isRequired).map(Field::name).toList();
        if (!required.isEmpty()) schema.put("required", required);
        schema.put("properties", properties);
        return schema;
    }
}
