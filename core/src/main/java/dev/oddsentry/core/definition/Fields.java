package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/**
 * The fields of one mapping of a document, read by name. A reader asks for what it knows and ends with {@link #refuseOthers};
 * every problem goes to one list, and a refused field reads as empty so that reading can go on.
 */
final class Fields {
    private final DocumentText document;
    private final String path;
    private final Map<String, Node> byName = new LinkedHashMap<>();
    private final Map<String, Node> names = new LinkedHashMap<>();
    private final Set<String> asked = new HashSet<>();
    private final @Nullable Node node;

    Fields(DocumentText document, String path, @Nullable MappingNode node) {
        this.document = document;
        this.path = path;
        this.node = node;
        if (node == null) return;
        for (var tuple : node.getValue()) {
            if (!(tuple.getKeyNode() instanceof ScalarNode name)) {
                document.refuse(path, "a field's name must be a plain text", tuple.getKeyNode());
            } else if (byName.put(name.getValue(), tuple.getValueNode()) != null) {
                document.refuse(pathOf(name.getValue()), "\"" + name.getValue() + "\" is given twice", name);
            } else {
                names.put(name.getValue(), name);
            }
        }
    }

    private String pathOf(String name) {
        return path.isEmpty() ? name : path + "." + name;
    }

    private Optional<Node> node(String name) {
        asked.add(name);
        return Optional.ofNullable(byName.get(name)).filter(found -> !isNull(found));
    }

    private static boolean isNull(Node node) {
        return node instanceof ScalarNode scalar && scalar.getTag().equals(org.snakeyaml.engine.v2.nodes.Tag.NULL);
    }

    Optional<String> text(String name) {
        return node(name).flatMap(found -> scalar(pathOf(name), found));
    }

    String requiredText(String name, String example) {
        var found = text(name).filter(text -> !text.isBlank());
        if (found.isEmpty() && (byName.get(name) == null || byName.get(name) instanceof ScalarNode)) {
            document.refuse(pathOf(name), "\"" + name + "\" is missing; write it like " + name + ": " + example, node);
        }
        return found.orElse("");
    }

    void refuse(String name, String message) {
        document.refuse(pathOf(name), message, byName.getOrDefault(name, node));
    }

    /** What is needed is not there, or says nothing; where what stands there was refused already, that is enough. */
    void refuseEmpty(String name, String example) {
        if (!items(name).isEmpty() && document.isRefused()) return;
        document.refuse(pathOf(name), "\"" + name + "\" is missing; write it like " + name + ": " + example, node);
    }

    /** A text read on by {@code read}, whose problems are moved to the place of the field. */
    <T> Optional<T> parsed(String name, Function<String, T> read) {
        return text(name).flatMap(text -> document.located(pathOf(name), () -> read.apply(text)));
    }

    <E extends Enum<E>> Optional<E> choice(String name, E[] choices) {
        return text(name).flatMap(text -> chosen(pathOf(name), text, choices));
    }

    <E extends Enum<E>> List<E> choices(String name, E[] choices) {
        return texts(name, (field, text) -> chosen(field, text, choices));
    }

    private <E extends Enum<E>> Optional<E> chosen(String field, String text, E[] choices) {
        for (E choice : choices) {
            if (code(choice).equals(text.strip())) return Optional.of(choice);
        }
        var codes = List.of(choices).stream().map(Fields::code).toList();
        document.add(Problem.error(
                        "unknown value \"" + text + "\"; use " + String.join(", ", codes),
                        field,
                        document.placeOf(field))
                .suggesting(EarlierNames.value(text)
                        .filter(codes::contains)
                        .or(() -> Nearest.to(text, codes))
                        .orElse(null)));
        return Optional.empty();
    }

    private static String code(Enum<?> choice) {
        return choice.name().toLowerCase(Locale.ROOT);
    }

    Optional<Boolean> truth(String name) {
        return text(name).flatMap(text -> {
            if (text.equals("true") || text.equals("false")) return Optional.of(Boolean.valueOf(text));
            document.refuse(pathOf(name), "\"" + text + "\" is neither true nor false", byName.get(name));
            return Optional.empty();
        });
    }

    /** A list of texts; a single text counts as a list of one. */
    List<String> texts(String name) {
        return texts(name, (_, text) -> Optional.of(text));
    }

    /** Texts that {@code check} may refuse with an {@link InvalidDefinitionException}. */
    List<String> checkedTexts(String name, Consumer<String> check) {
        return texts(
                name,
                (field, text) -> document.located(field, () -> {
                    check.accept(text);
                    return text;
                }));
    }

    private interface ReadsText<T> {
        Optional<T> read(String field, String text);
    }

    private <T> List<T> texts(String name, ReadsText<T> read) {
        var found = new ArrayList<T>();
        for (var item : items(name)) {
            String field = pathOf(name) + "[" + found.size() + "]";
            scalar(field, item).flatMap(text -> read.read(field, text)).ifPresent(found::add);
        }
        return List.copyOf(found);
    }

    List<Node> items(String name) {
        return node(name)
                .map(found -> found instanceof SequenceNode sequence ? sequence.getValue() : List.of(found))
                .orElse(List.of());
    }

    /** The mapping of that name; empty fields if it is absent. */
    Fields fields(String name) {
        var found = node(name);
        if (found.isPresent() && !(found.get() instanceof MappingNode)) {
            document.refuse(pathOf(name), "\"" + name + "\" holds fields of its own, one a line", found.get());
        }
        return new Fields(document, pathOf(name), found.orElse(null) instanceof MappingNode mapping ? mapping : null);
    }

    /** The names of this mapping, where they are free, in the order written. */
    List<String> freeNames() {
        asked.addAll(names.keySet());
        return List.copyOf(names.keySet());
    }

    /** The items of a list, each with fields of its own; a bare text is the field {@code bare} of its item. */
    List<Fields> fieldsOfItems(String name, String bare) {
        var found = new ArrayList<Fields>();
        for (var item : items(name)) {
            String field = pathOf(name) + "[" + found.size() + "]";
            var fields = new Fields(document, field, item instanceof MappingNode mapping ? mapping : null);
            if (!(item instanceof MappingNode)) fields.put(bare, item);
            found.add(fields);
        }
        return found;
    }

    private void put(String name, Node value) {
        byName.put(name, value);
        names.put(name, value);
    }

    Optional<String> scalar(String field, Node found) {
        if (found instanceof ScalarNode scalar) {
            document.place(field, scalar);
            return Optional.of(scalar.getValue());
        }
        document.refuse(field, "expected a text or a number, saw " + describe(found), found);
        return Optional.empty();
    }

    private static String describe(Node node) {
        return node instanceof MappingNode ? "fields" : "a list";
    }

    /** True where the field is written, even if it is empty. */
    boolean has(String name) {
        return byName.containsKey(name);
    }

    boolean isList(String name) {
        return byName.get(name) instanceof SequenceNode;
    }

    boolean isMapping(String name) {
        return byName.get(name) instanceof MappingNode;
    }

    /** Refuses every name that was never asked for, offering the nearest that was. */
    void refuseOthers() {
        names.forEach((name, at) -> {
            if (asked.contains(name)) return;
            Place place = document.placeOf(at);
            var present = EarlierNames.field(name);
            if (present.isPresent()) {
                document.add(
                        Problem.error("\"" + name + "\" is called \"" + present.get() + "\" now", pathOf(name), place)
                                .suggesting(present.get()));
                return;
            }
            document.add(Problem.error(
                            "unknown field \"" + name + "\"" + (path.isEmpty() ? "" : " in " + path),
                            pathOf(name),
                            place)
                    .suggesting(Nearest.to(name, asked).orElse(null)));
        });
    }
}
