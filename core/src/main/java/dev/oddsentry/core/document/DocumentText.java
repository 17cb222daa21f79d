package dev.oddsentry.core.document;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.api.lowlevel.Compose;
import org.snakeyaml.engine.v2.api.lowlevel.Parse;
import org.snakeyaml.engine.v2.events.CollectionEndEvent;
import org.snakeyaml.engine.v2.events.CollectionStartEvent;
import org.snakeyaml.engine.v2.events.Event;
import org.snakeyaml.engine.v2.events.NodeEvent;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.exceptions.MarkedYamlEngineException;
import org.snakeyaml.engine.v2.exceptions.YamlEngineException;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.ScalarNode;

/** One YAML (or JSON) text being read: its nodes, where they stand, and the problems found so far. */
public final class DocumentText {
    private static final int MOST_NODES = 20_000;
    private static final int DEEPEST = 30;
    private static final int MOST_PROBLEMS = 100;

    /** Aliases could make a small text expand without end; no document needs them. */
    private static final LoadSettings SETTINGS = LoadSettings.builder()
            .setMaxAliasesForCollections(0)
            .setCodePointLimit(1_000_000)
            .setAllowDuplicateKeys(true)
            .build();

    private final String text;
    private final FieldPlaces places;
    private final int codePoints;
    private final List<Problem> problems = new ArrayList<>();

    public DocumentText(String text) {
        this.text = text;
        this.places = new FieldPlaces(text);
        this.codePoints = text.codePointCount(0, text.length());
    }

    /** The fields at the top; empty fields and a problem if the text holds no mapping. */
    public Fields top() {
        try {
            if (isTooLarge()) return new Fields(this, "", null);
            Node root = new Compose(SETTINGS).composeString(text).orElse(null);
            if (root instanceof MappingNode mapping) return new Fields(this, "", mapping);
            add(Problem.error(
                    "the document is empty; it starts with kind: rule or kind: query", "", Place.in(text, 0, 0)));
        } catch (MarkedYamlEngineException malformed) {
            add(Problem.error(
                    "this is not YAML: " + malformed.getProblem(),
                    "",
                    malformed
                            .getProblemMark()
                            .map(mark -> Place.in(text, offsetOf(mark), 1))
                            .orElse(null)));
        } catch (YamlEngineException malformed) {
            add(Problem.error("this is not YAML: " + malformed.getMessage(), "", null));
        }
        return new Fields(this, "", null);
    }

    /** Looks at the shape alone: nodes are composed by recursion, and every one of them costs memory. */
    private boolean isTooLarge() {
        int depth = 0;
        int nodes = 0;
        for (var event : new Parse(SETTINGS).parseString(text)) {
            if (event instanceof NodeEvent) nodes++;
            if (event instanceof CollectionStartEvent) depth++;
            if (event instanceof CollectionEndEvent) depth--;
            if (depth > DEEPEST) return refuseWhole("this is nested more than " + DEEPEST + " deep", event);
            if (nodes > MOST_NODES)
                return refuseWhole("the document has more than " + MOST_NODES + " fields and values", event);
        }
        return false;
    }

    private boolean refuseWhole(String message, Event event) {
        add(Problem.error(
                message,
                "",
                event.getStartMark()
                        .map(mark -> Place.in(text, offsetOf(mark), 1))
                        .orElse(null)));
        return true;
    }

    void place(String field, ScalarNode scalar) {
        var start = scalar.getStartMark();
        var end = scalar.getEndMark();
        if (start.isPresent() && end.isPresent()) {
            places.put(field, scalar.getValue(), offsetOf(start.get()), offsetOf(end.get()));
        }
    }

    /** Marks count code points; places count UTF-16 units. */
    private int offsetOf(Mark mark) {
        if (codePoints == text.length()) return Math.min(mark.getIndex(), codePoints);
        return text.offsetByCodePoints(0, Math.min(mark.getIndex(), codePoints));
    }

    public @Nullable Place placeOf(String field) {
        return places.of(field);
    }

    @Nullable
    Place placeOf(@Nullable Node node) {
        if (node == null) return null;
        return node.getStartMark()
                .map(start -> {
                    int from = offsetOf(start);
                    boolean plain = node instanceof ScalarNode;
                    int to = plain ? node.getEndMark().map(this::offsetOf).orElse(from) : from;
                    return Place.in(text, from, to - from);
                })
                .orElse(null);
    }

    void refuse(String field, String message, @Nullable Node at) {
        add(Problem.error(message, field, placeOf(at)));
    }

    /** Nobody reads more than the first hundred, and each costs a search for its place. */
    public void add(Problem problem) {
        if (problems.size() < MOST_PROBLEMS) problems.add(problem);
    }

    /** Runs a reader of a field's text; the problems it throws are kept with their place in this document. */
    <T> Optional<T> located(String field, Supplier<T> read) {
        try {
            return Optional.of(read.get());
        } catch (InvalidDefinitionException refused) {
            refused.problems().forEach(problem -> add(places.locate(field, problem)));
            return Optional.empty();
        }
    }

    public List<Problem> problems() {
        return problems;
    }

    public boolean isRefused() {
        return problems.stream().anyMatch(Problem::stopsSave);
    }

    public FieldPlaces places() {
        return places;
    }
}
