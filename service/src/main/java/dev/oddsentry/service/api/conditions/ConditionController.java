package dev.oddsentry.service.api.conditions;

import dev.oddsentry.core.condition.Completion;
import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.condition.FireWhen;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.databind.JsonNode;

/** A condition on a query's rows or groups while it is being written, as text or as a tree. */
@RestController
@RequestMapping(path = "/api/queries/{name}", produces = "application/json")
class ConditionController {
    private final DefinitionStore definitions;
    private final ThresholdStore thresholds;
    private final Clock clock;

    private final UnknownNames unknown;
    private final Visibility visibility;

    ConditionController(
            DefinitionStore definitions,
            ThresholdStore thresholds,
            Clock clock,
            UnknownNames unknown,
            Visibility visibility) {
        this.visibility = visibility;
        this.unknown = unknown;
        this.definitions = definitions;
        this.thresholds = thresholds;
        this.clock = clock;
    }

    /**
     * @param text the condition as text; or {@code tree}, and one of the two
     * @param place {@code check} for a {@code fire when}, {@code measure} for a measure; absent otherwise
     * @param per the columns of the groups it is over; absent where it is over rows
     * @param measures of the groups, by name; for a measure those before it
     */
    record ConditionBody(
            @Nullable @Size(max = 20_000) String text,
            @Nullable JsonNode tree,
            @Nullable String place,
            @Nullable List<String> per,
            @Nullable Map<String, String> measures) {}

    /**
     * @param text the canonical text; what was written where it cannot be read
     * @param tree null where it cannot be read
     */
    record ConditionView(
            String text,
            @Nullable JsonNode tree,
            String sentence,
            List<ConditionPartView> parts,
            List<Problem> problems) {}

    record ConditionPartView(String text, String sentence) {}

    /** Where in a rule a text stands. */
    private enum Place {
        EXCEPTIONS,
        CHECK,
        MEASURE;

        static Place of(@Nullable String written) {
            return switch (written) {
                case null -> EXCEPTIONS;
                case "check" -> CHECK;
                case "measure" -> MEASURE;
                default ->
                    throw RefusedException.invalid(
                            "\"" + written + "\" is not a place; use check (fire_when) or measure, or leave it out.");
            };
        }
    }

    @PostMapping("/condition")
    ConditionView readCondition(@PathVariable String name, @Valid @RequestBody ConditionBody body) {
        if ((body.text() == null) == (body.tree() == null))
            throw RefusedException.invalid("Give the condition as text or as tree, one of the two.");
        var place = Place.of(body.place());
        var query = require(name);
        String text = body.text() != null ? body.text() : Condition.print(ConditionTrees.tree(body.tree()));
        var labels = labels(query.definition(), body);
        if (place == Place.CHECK) return readFireWhen(text, labels);
        var scene = scene(query, body.per(), body.measures());
        var problems = new ArrayList<>(scene.problems());
        if (place == Place.MEASURE) {
            problems.addAll(scene.measureProblems(text));
            return new ConditionView(text, treeOrNull(text), Condition.noun(text, labels), List.of(), problems);
        }
        Condition condition = null;
        if (problems.isEmpty()) {
            var reading = scene.read(text);
            problems.addAll(reading.problems());
            condition = reading.condition().orElse(null);
        }
        if (condition == null)
            return new ConditionView(text, treeOrNull(text), labels.sentence(text), List.of(), problems);
        var parts = condition.parts().stream()
                .map(Condition::print)
                .map(part -> new ConditionPartView(part, labels.sentence(part)))
                .toList();
        return new ConditionView(
                Condition.print(condition.tree()),
                ConditionTrees.json(condition.tree()),
                labels.sentence(text),
                parts,
                problems);
    }

    private static ConditionView readFireWhen(String text, RuleLabels labels) {
        var problems = FireWhen.read(text).problems();
        return new ConditionView(text, treeOrNull(text), labels.sentence(text), List.of(), problems);
    }

    private static @Nullable JsonNode treeOrNull(String text) {
        try {
            return ConditionTrees.json(Condition.parse(text));
        } catch (InvalidDefinitionException unreadable) {
            return null;
        }
    }

    /**
     * @param offset in UTF-16 units, where the cursor stands
     * @param place {@code check} for a {@code fire when}; absent otherwise
     */
    record CompletionBody(
            @NotNull @Size(max = 20_000) String text,
            int offset,
            @Nullable String place,
            @Nullable List<String> per,
            @Nullable Map<String, String> measures) {}

    @PostMapping("/completion")
    Completion.CompletionOptions completeCondition(@PathVariable String name, @Valid @RequestBody CompletionBody body) {
        if (Place.of(body.place()) == Place.CHECK) return FireWhen.complete(body.text(), body.offset());
        return scene(require(name), body.per(), body.measures()).complete(body.text(), body.offset());
    }

    private Current<QueryDefinition> require(String name) {
        return definitions.query(name).orElseThrow(() -> unknown.of(Kind.QUERY, name));
    }

    private Scene scene(
            Current<QueryDefinition> query, @Nullable List<String> per, @Nullable Map<String, String> measures) {
        return Scene.of(definitions.columns(query), thresholds.writable(visibility.now(), Set.of()), per, measures);
    }

    /** The rule that such a condition would stand in, as far as its labels go. */
    private RuleLabels labels(QueryDefinition query, ConditionBody body) {
        var named = new LinkedHashMap<String, RuleDefinition.Measure>();
        if (body.measures() != null)
            body.measures().forEach((name, value) -> named.put(name, new RuleDefinition.Measure(value, null, null)));
        var groups = body.per() == null ? null : new RuleDefinition.GroupsDefinition(body.per(), named, null);
        LocalDate today = clock.instant().atOffset(ZoneOffset.UTC).toLocalDate();
        return new RuleLabels(groups, query, thresholds.writable(visibility.now(), Set.of()), today);
    }
}
