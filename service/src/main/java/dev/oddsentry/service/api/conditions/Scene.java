package dev.oddsentry.service.api.conditions;

import dev.oddsentry.core.condition.Completion;
import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.condition.Grouping;
import dev.oddsentry.core.condition.Reading;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.value.Columns;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Where a condition stands while it is being written: over rows, or over groups.
 *
 * @param groups null over rows
 * @param problems of the groups and their measures
 */
record Scene(
        Columns columns, Thresholds thresholds, @Nullable Grouping groups, List<Problem> problems) {

    static Scene of(
            Columns columns,
            Thresholds thresholds,
            @Nullable List<String> per,
            @Nullable Map<String, String> measures) {
        if (per == null) return new Scene(columns, thresholds, null, List.of());
        var problems = new ArrayList<Problem>();
        var positions = new ArrayList<Integer>();
        for (String name : per) {
            var index = columns.indexOf(name, false);
            if (index.isPresent()) positions.add(index.getAsInt());
            else problems.add(Problem.error("unknown column \"" + name + "\"", "per", null));
        }
        var groups = new Grouping(
                columns, positions.stream().mapToInt(Integer::intValue).toArray(), thresholds);
        if (measures != null) {
            measures.forEach((name, value) -> groups.measure(name, value)
                    .forEach(problem -> problems.add(problem.within("measures." + name, problem.place()))));
        }
        return new Scene(columns, thresholds, groups, problems);
    }

    Reading read(String text) {
        return groups == null ? Condition.read(text, columns, thresholds) : groups.condition(text);
    }

    /** What is wrong with a measure of these groups. */
    List<Problem> measureProblems(String text) {
        return groups == null
                ? List.of(Problem.error("only groups are measured", "", null))
                : groups.measure("this", text);
    }

    Completion.CompletionOptions complete(String text, int offset) {
        return groups == null ? Completion.at(text, offset, columns, thresholds) : groups.complete(text, offset);
    }
}
