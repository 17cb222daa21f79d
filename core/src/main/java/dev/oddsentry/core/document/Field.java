package dev.oddsentry.core.document;

import java.util.Collection;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * One field of a part of a document. Reader, printer, JSON Schema and reference page all come from it, so that they cannot differ.
 *
 * @param <P> what the part is read to
 * @param <V> the value of the field in it
 */
public final class Field<P, V> {
    private final String name;
    private final FieldType<V> type;
    private final Function<P, @Nullable V> of;
    private final String help;
    private @Nullable V usual;
    private @Nullable String usualWords;
    private @Nullable String example;
    private boolean alwaysWritten;

    Field(String name, FieldType<V> type, Function<P, @Nullable V> of, String help) {
        this.name = name;
        this.type = type;
        this.of = of;
        this.help = help;
    }

    /** What is meant where the field is not written; it is left out again when the part is printed. */
    public Field<P, V> usual(V value) {
        usual = value;
        return this;
    }

    /** The same in words, where the value is decided elsewhere or says too little. */
    public Field<P, V> usually(String words) {
        usualWords = words;
        return this;
    }

    /** Must be written, such as {@code example}. */
    public Field<P, V> required(String anExample) {
        example = anExample;
        return this;
    }

    /** Printed even where it is usual or empty. */
    public Field<P, V> alwaysWritten() {
        alwaysWritten = true;
        return this;
    }

    /** What is written; empty where nothing is, or nothing that can be read. */
    public Optional<V> read(Fields fields) {
        return read(fields, type);
    }

    /** The same by a type that knows what other fields say. */
    public Optional<V> read(Fields fields, FieldType<V> knowing) {
        var found = knowing.read(fields, name);
        if (example != null)
            fields.requireValue(
                    name,
                    example,
                    found.filter(value -> !isEmpty(value) && !isBlank(value)).isPresent());
        return found;
    }

    /** What is written, else the usual. */
    public V in(Fields fields) {
        return read(fields).orElseGet(() -> Objects.requireNonNull(usual));
    }

    public @Nullable V orNull(Fields fields) {
        return read(fields).orElse(null);
    }

    void print(P part, Map<String, Object> into) {
        var value = of.apply(part);
        if (value == null) return;
        if (!alwaysWritten && (value.equals(usual) || isEmpty(value))) return;
        var printed = type.print(value);
        // A part all of whose fields are usual.
        if (alwaysWritten || !isEmpty(printed)) into.put(name, printed);
    }

    private static boolean isEmpty(Object value) {
        return switch (value) {
            case Collection<?> many -> many.isEmpty();
            case Map<?, ?> map -> map.isEmpty();
            default -> false;
        };
    }

    private static boolean isBlank(Object value) {
        return value instanceof String text && text.isBlank();
    }

    /** The same field of a part in which {@code P} is found. */
    <Q> Field<Q, V> within(Function<Q, @Nullable P> whole) {
        var field = new Field<Q, V>(
                name,
                type,
                part -> {
                    var inner = whole.apply(part);
                    return inner == null ? null : of.apply(inner);
                },
                help);
        field.usual = usual;
        field.usualWords = usualWords;
        field.example = example;
        field.alwaysWritten = alwaysWritten;
        return field;
    }

    public String name() {
        return name;
    }

    public FieldType<V> type() {
        return type;
    }

    public String help() {
        return help;
    }

    public boolean isRequired() {
        return example != null;
    }

    /** What is meant where it is not written, in words; empty where that is nothing. */
    public String usualWords() {
        if (usualWords != null) return usualWords;
        if (usual == null || isEmpty(usual)) return "";
        return "`" + type.print(usual) + "`";
    }
}
