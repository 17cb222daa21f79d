package dev.oddsentry.core.definition;

import dev.oddsentry.core.document.DocumentText;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.YamlPrinter;
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
    private static final List<String> KINDS =
            List.of("query", "rule", "threshold", "calendar", "layout", "recipient-list", "round-up");

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
        String kind = top.text("kind").orElse("");
        top.requireValue("kind", "rule", !kind.isBlank());
        var definition = switch (kind) {
            case "query" -> QueryFields.read(top);
            case "rule" -> RuleFields.read(top);
            case "threshold" -> ThresholdFields.read(top);
            case "calendar" -> CalendarFields.read(top);
            case "layout" -> LayoutFields.shared(top);
            case "recipient-list" -> RecipientListFields.read(top);
            case "round-up" -> RoundUpFields.read(top);
            default -> null;
        };
        if (definition == null) refuseKind(document, kind);
        else top.refuseOthers();
        return definition;
    }

    private static void refuseKind(DocumentText document, String kind) {
        if (kind.isEmpty()) return;
        document.add(Problem.error(
                        "\"" + kind
                                + "\" is not a kind of definition; use query, rule, threshold, calendar, layout, recipient-list or round-up",
                        "kind",
                        document.placeOf("kind"))
                .suggesting(Nearest.to(kind, KINDS).orElse(null)));
    }

    /** A definition as an ordered tree of maps, lists and scalars, in the form that {@link #read} reads. */
    public static Map<String, Object> tree(Definition definition) {
        return switch (definition) {
            case QueryDefinition query -> QueryFields.PART.print(query);
            case RuleDefinition rule -> RuleFields.PART.print(rule);
            case ThresholdDefinition threshold -> ThresholdFields.PART.print(threshold);
            case CalendarDefinition calendar -> CalendarFields.PART.print(calendar);
            case SharedLayoutDefinition shared -> LayoutFields.SHARED.print(shared);
            case RecipientListDefinition list -> RecipientListFields.PART.print(list);
            case RoundUpDefinition roundUp -> RoundUpFields.PART.print(roundUp);
        };
    }

    /** A definition as YAML. */
    public static String print(Definition definition) {
        return YamlPrinter.print(tree(definition));
    }
}
