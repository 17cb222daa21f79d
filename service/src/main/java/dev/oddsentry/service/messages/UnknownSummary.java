package dev.oddsentry.service.messages;

import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.evaluation.Evaluation;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.TreeMap;
import java.util.stream.Collectors;

/** Rows and groups that a check could not evaluate, in a sentence for its message: rows by the missing column, groups by their names. */
final class UnknownSummary {
    private static final int MOST_NAMED = 5;

    private UnknownSummary() {}

    static String of(Evaluation evaluation, RuleLabels labels, ZoneId zone) {
        return labels.groups() == null ? rows(evaluation, labels) : groups(evaluation, zone);
    }

    private static String rows(Evaluation evaluation, RuleLabels labels) {
        var byColumn = new TreeMap<Integer, Long>();
        evaluation
                .evaluator()
                .tally()
                .forEach(part ->
                        part.unknownByColumn().forEach((index, rows) -> byColumn.merge(index, rows, Long::sum)));
        if (byColumn.isEmpty()) return "";
        var lacking = new ArrayList<String>();
        byColumn.forEach((index, rows) -> lacking.add((rows == 1 ? "1 row" : rows + " rows") + " ("
                + labels.column(evaluation.columns().at(index).name()).text() + " is missing)"));
        return "Could not be evaluated: " + String.join(", ", lacking) + ".";
    }

    private static String groups(Evaluation evaluation, ZoneId zone) {
        var unknown = evaluation.evaluator().unevaluated();
        if (unknown.isEmpty()) return "";
        String named = unknown.stream()
                .limit(MOST_NAMED)
                .map(group -> CellText.joined(group.per(), zone))
                .collect(Collectors.joining(", "));
        int more = unknown.size() - MOST_NAMED;
        return "Could not be evaluated: " + named + (more > 0 ? " and " + more + " more" : "") + ".";
    }
}
