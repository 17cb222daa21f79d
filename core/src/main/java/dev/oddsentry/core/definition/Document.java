package dev.oddsentry.core.definition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * A definition read from its text, with where each field stands, so that what is found wrong later (an unknown column) still has
 * its place.
 */
public record Document(Definition definition, FieldPlaces places) {
    private static final List<String> KINDS = List.of("query", "rule", "threshold", "calendar", "layout", "round-up");

    /** @throws InvalidDefinitionException with every problem of the text */
    public static Document read(String text) {
        var document = new DocumentText(text);
        Fields top = document.top();
        Definition definition = null;
        if (!document.isRefused()) definition = readKind(document, top);
        if (definition == null || document.isRefused()) throw new InvalidDefinitionException(document.problems());
        return new Document(definition, document.places());
    }

    private static @Nullable Definition readKind(DocumentText document, Fields top) {
        String kind = top.requiredText("kind", "rule");
        return switch (kind) {
            case "query" -> QueryReader.read(top);
            case "rule" -> RuleReader.read(top, document);
            case "threshold" -> ThresholdReader.read(top);
            case "calendar" -> CalendarReader.read(top, document);
            case "layout" -> sharedLayout(top);
            case "round-up" -> RoundUpReader.read(top);
            case "" -> null;
            default -> {
                document.add(Problem.error(
                                "\"" + kind
                                        + "\" is not a kind of definition; use query, rule, threshold, calendar, layout or round-up",
                                "kind",
                                document.placeOf("kind"))
                        .suggesting(Nearest.to(kind, KINDS).orElse(null)));
                yield null;
            }
        };
    }

    private static SharedLayoutDefinition sharedLayout(Fields top) {
        var common = CommonFields.read(top);
        var shared = new SharedLayoutDefinition(
                common.id(),
                common.name(),
                common.title(),
                top.text("private_to").orElse(null),
                LayoutReader.read(top));
        top.refuseOthers();
        return shared;
    }

    /** A definition as an ordered tree of maps, lists and scalars, in the form that {@link #read} reads. */
    public static Map<String, Object> tree(Definition definition) {
        return switch (definition) {
            case QueryDefinition query -> DefinitionTrees.of(query);
            case RuleDefinition rule -> DefinitionTrees.of(rule);
            case ThresholdDefinition threshold -> DefinitionTrees.of(threshold);
            case CalendarDefinition calendar -> DefinitionTrees.of(calendar);
            case SharedLayoutDefinition shared -> DefinitionTrees.of(shared);
            case RoundUpDefinition roundUp -> DefinitionTrees.of(roundUp);
        };
    }

    /** A definition as YAML. */
    public static String print(Definition definition) {
        return DefinitionTrees.print(tree(definition));
    }
}
