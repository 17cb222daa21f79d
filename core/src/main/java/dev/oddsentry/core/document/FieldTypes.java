package dev.oddsentry.core.document;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/** The types of field that many parts have. */
public final class FieldTypes {
    private static final int MOST_DIGITS = 9;

    public static final ScalarType<String> TEXT = text("text");

    public static final ScalarType<Boolean> TRUTH = new ScalarType<>(
            new Shape("`true` or `false`", Map.of("type", "boolean")),
            text -> {
                if (text.equals("true") || text.equals("false")) return Boolean.valueOf(text);
                throw InvalidDefinitionException.of("\"" + text + "\" is neither true nor false");
            },
            truth -> truth);

    private FieldTypes() {}

    /** Any text. */
    public static ScalarType<String> text(String words) {
        return new ScalarType<>(Shape.text(words), Function.identity(), text -> text);
    }

    /** Any text that {@code check} does not refuse. */
    public static ScalarType<String> text(String words, Function<String, String> check) {
        return new ScalarType<>(Shape.text(words), check, text -> text);
    }

    /** The name of another definition, such as {@code query}. */
    public static ScalarType<String> nameOf(String kind) {
        return name("name of a " + kind);
    }

    public static ScalarType<String> name(String words) {
        return new ScalarType<>(
                new Shape(words, Map.of("type", "string", "pattern", Names.PATTERN)), Names::check, name -> name);
    }

    public static ScalarType<Integer> whole(int least, int most) {
        String words = "whole number from " + least + " to " + most;
        return new ScalarType<>(
                new Shape(words, Map.of("type", "integer", "minimum", least, "maximum", most)),
                text -> {
                    if (text.strip().matches("0|[1-9]\\d{0," + (MOST_DIGITS - 1) + "}")) {
                        int number = Integer.parseInt(text.strip());
                        if (number >= least && number <= most) return number;
                    }
                    throw InvalidDefinitionException.of("\"" + text + "\" is not a " + words);
                },
                number -> number);
    }

    /** One of the values of an enum, written in lower case. */
    public static <E extends Enum<E>> ScalarType<E> choice(E[] choices) {
        var codes = Arrays.stream(choices).map(FieldTypes::code).toList();
        return new ScalarType<>(
                new Shape(
                        codes.stream().map(code -> "`" + code + "`").collect(Collectors.joining(", ")),
                        Map.of("enum", codes)),
                text -> {
                    int chosen = codes.indexOf(text.strip());
                    if (chosen >= 0) return choices[chosen];
                    throw noChoice(text, codes);
                },
                FieldTypes::code);
    }

    private static InvalidDefinitionException noChoice(String text, List<String> codes) {
        return new InvalidDefinitionException(List.of(
                Problem.error("unknown value \"" + text + "\"; use " + String.join(", ", codes), "", null)
                        .suggesting(EarlierNames.value(text)
                                .filter(codes::contains)
                                .or(() -> Nearest.to(text, codes))
                                .orElse(null))));
    }

    public static String code(Enum<?> choice) {
        return choice.name().toLowerCase(Locale.ROOT);
    }

    /** Fields of their own, which are read even where nothing is written: each has its default. */
    public static <V> FieldType<V> part(Part<V> part, Function<Fields, V> read) {
        return FieldType.of(
                part.shape(), (fields, name) -> Optional.of(closed(fields.fields(name), read)), part::print);
    }

    /** Fields of their own that mean something only where they are written; a name without anything counts as not written. */
    public static <V> FieldType<V> optionalPart(Part<V> part, Function<Fields, V> read) {
        return FieldType.of(
                part.shape(),
                (fields, name) ->
                        fields.hasValue(name) ? Optional.of(closed(fields.fields(name), read)) : Optional.empty(),
                part::print);
    }

    /** A list of parts, of which one with the field {@code bare} alone is written as that field's text. */
    public static <V> FieldType<List<V>> parts(Part<V> part, String bare, Function<Fields, V> read) {
        var shape = part.field(bare).type().shape().or(part.shape()).inList();
        return FieldType.of(
                shape,
                (fields, name) -> fields.has(name)
                        ? Optional.of(fields.fieldsOfItems(name, bare).stream()
                                .map(item -> closed(item, read))
                                .toList())
                        : Optional.empty(),
                values -> values.stream()
                        .map(value -> bareIfAlone(part.print(value), bare))
                        .toList());
    }

    private static Object bareIfAlone(Map<String, Object> fields, String bare) {
        var alone = fields.get(bare);
        return fields.size() == 1 && alone != null ? alone : fields;
    }

    /** Values by names that the document gives, in the order written. */
    public static <V> FieldType<Map<String, V>> byName(FieldType<V> type) {
        return FieldType.of(
                type.shape().byName(), (fields, name) -> Optional.of(read(fields.fields(name), type)), values -> {
                    var printed = new LinkedHashMap<String, Object>();
                    values.forEach((name, value) -> printed.put(name, type.print(value)));
                    return printed;
                });
    }

    private static <V> Map<String, V> read(Fields named, FieldType<V> type) {
        var values = new LinkedHashMap<String, V>();
        for (String name : named.freeNames()) type.read(named, name).ifPresent(value -> values.put(name, value));
        return values;
    }

    private static <V> V closed(Fields fields, Function<Fields, V> read) {
        var value = read.apply(fields);
        fields.refuseOthers();
        return value;
    }
}
