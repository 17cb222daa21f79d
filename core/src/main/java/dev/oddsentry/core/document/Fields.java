package dev.oddsentry.core.document;

import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/**
 * The fields of one mapping of a document, read by name. A reader asks for what it knows and ends with {@link #refuseOthers};
 * every problem goes to one list, and a refused field reads as empty so that reading can go on.
 */
public final class Fields {
    /** The name of a value that stands where its fields would. */
    public static final String ITSELF = "";

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
        if (name.equals(ITSELF)) return path;
        return path.isEmpty() ? name : path + "." + name;
    }

    private Optional<Node> node(String name) {
        asked.add(name);
        return Optional.ofNullable(byName.get(name)).filter(found -> !isNull(found));
    }

    private static boolean isNull(Node node) {
        return node instanceof ScalarNode scalar && scalar.getTag().equals(org.snakeyaml.engine.v2.nodes.Tag.NULL);
    }

    public Optional<String> text(String name) {
        return node(name).flatMap(found -> scalar(pathOf(name), found));
    }

    /** What must be written is missing if {@code there} is false, unless what is written was refused already. */
    public void requireValue(String name, String example, boolean there) {
        var written = node(name);
        boolean blank = written.isEmpty()
                || (written.get() instanceof ScalarNode scalar
                        && scalar.getValue().isBlank())
                || (written.get() instanceof SequenceNode list
                        && list.getValue().isEmpty());
        if (blank || (!there && !document.isRefused()))
            document.refuse(pathOf(name), "\"" + name + "\" is missing; write it like " + name + ": " + example, node);
    }

    public void refuse(String name, String message) {
        document.refuse(pathOf(name), message, byName.getOrDefault(name, node));
    }

    /** Whether anything in the document was refused so far. */
    public boolean isRefused() {
        return document.isRefused();
    }

    /** A text read on by {@code read}, whose problems are moved to the place of the field. */
    public <T> Optional<T> parsed(String name, Function<String, T> read) {
        return text(name).flatMap(text -> document.located(pathOf(name), () -> read.apply(text)));
    }

    /** Runs a reader of the field's name or text, whose problems are moved to its place. */
    public <T> Optional<T> located(String name, Supplier<T> read) {
        return document.located(pathOf(name), read);
    }

    /** A list of texts; a single text counts as a list of one. */
    public List<String> texts(String name) {
        return parsedItems(name, text -> text);
    }

    /** A list of texts, each read on by {@code read}; a single text counts as a list of one. */
    public <T> List<T> parsedItems(String name, Function<String, T> read) {
        var found = new ArrayList<T>();
        int index = 0;
        for (var item : items(name)) {
            String field = pathOf(name) + "[" + index++ + "]";
            scalar(field, item)
                    .flatMap(text -> document.located(field, () -> read.apply(text)))
                    .ifPresent(found::add);
        }
        return List.copyOf(found);
    }

    private List<Node> items(String name) {
        return node(name)
                .map(found -> found instanceof SequenceNode sequence ? sequence.getValue() : List.of(found))
                .orElse(List.of());
    }

    /** The mapping of that name; empty fields if it is absent. */
    public Fields fields(String name) {
        var found = node(name);
        if (found.isPresent() && !(found.get() instanceof MappingNode)) {
            document.refuse(
                    pathOf(name),
                    "\"" + name + "\" has fields of its own; write them below it, one per line",
                    found.get());
        }
        return new Fields(document, pathOf(name), found.orElse(null) instanceof MappingNode mapping ? mapping : null);
    }

    /** The names of this mapping, where they are free, in the order written. */
    public List<String> freeNames() {
        asked.addAll(names.keySet());
        return List.copyOf(names.keySet());
    }

    /** The items of a list, each with fields of its own; a bare text is the field {@code bare} of its item. */
    public List<Fields> fieldsOfItems(String name, String bare) {
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

    private Optional<String> scalar(String field, Node found) {
        if (found instanceof ScalarNode scalar) {
            document.place(field, scalar);
            return Optional.of(scalar.getValue());
        }
        document.refuse(field, "expected a text or a number, saw " + describe(found), found);
        return Optional.empty();
    }

    private static String describe(Node node) {
        if (!(node instanceof MappingNode mapping)) return "a list";
        // YAML reads "team: Traffic" without quotation marks as a field of its own.
        if (mapping.getValue().size() == 1
                && mapping.getValue().getFirst().getKeyNode() instanceof ScalarNode key
                && mapping.getValue().getFirst().getValueNode() instanceof ScalarNode value)
            return "fields; a text with a colon needs quotation marks: \"" + key.getValue() + ": " + value.getValue()
                    + "\"";
        return "fields";
    }

    /** True where the field is written with a value. */
    boolean hasValue(String name) {
        return node(name).isPresent();
    }

    /** True where the field is written, even if it is empty. */
    public boolean has(String name) {
        asked.add(name);
        return byName.containsKey(name);
    }

    public boolean isList(String name) {
        return byName.get(name) instanceof SequenceNode;
    }

    public boolean isMapping(String name) {
        return byName.get(name) instanceof MappingNode;
    }

    private List<String> known() {
        return asked.stream().filter(name -> !name.equals(ITSELF)).toList();
    }

    /** Refuses every name that was never asked for, offering the nearest that was. */
    public void refuseOthers() {
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
                    .suggesting(Nearest.to(name, known()).orElse(null)));
        });
    }
}
