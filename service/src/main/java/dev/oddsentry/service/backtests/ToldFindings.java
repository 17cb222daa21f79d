package dev.oddsentry.service.backtests;

import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.backtests.BackTestResult.BackTestDifference;
import dev.oddsentry.service.backtests.BackTestResult.BackTestFinding;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.reporting.ReportPlan;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/** The findings that one variant's messages tell over the stretch. */
final class ToldFindings {
    private static final int MOST_LISTED = 20;
    private static final int MOST_WORDS = 2;
    private static final Comparator<BackTestFinding> LATEST_FIRST =
            Comparator.comparing(BackTestFinding::slot).reversed().thenComparing(BackTestFinding::finding);

    private final Map<Digest, BackTestFinding> byKey = new HashMap<>();

    /** The exceptions that a message at this slot tells, in words. */
    static Map<Digest, BackTestFinding> at(Instant slot, Evaluation evaluation, ReportPlan plan, RuleLabels labels) {
        var told = plan.updates().stream().map(item -> item.subject().key()).collect(Collectors.toSet());
        Map<Digest, BackTestFinding> findings = HashMap.newHashMap(told.size());
        if (told.isEmpty()) return findings;
        var zone = evaluation.input().rule().zone();
        evaluation.exceptions().forEach(exception -> {
            if (told.contains(exception.key()))
                findings.put(
                        exception.key(),
                        new BackTestFinding(
                                slot,
                                words(exception, evaluation, labels, zone),
                                decided(exception.row(), evaluation, labels, zone)));
        });
        return findings;
    }

    /** As its message begins with it: the first columns of the layout; of a rule without one, the key. */
    private static String words(EvaluatedRow exception, Evaluation evaluation, RuleLabels labels, ZoneId zone) {
        var words = evaluation.input().rule().delivery().layout().columnNames().stream()
                .limit(MOST_WORDS)
                .map(name -> {
                    Object value = exception.row().get(evaluation.columns().require(name));
                    return value == null ? "" : labels.value(name, value, zone);
                })
                .filter(word -> !word.isEmpty())
                .toList();
        return words.isEmpty() ? CellText.joined(exception.identity(), zone) : String.join(" · ", words);
    }

    private static String decided(
            List<? extends @Nullable Object> row, Evaluation evaluation, RuleLabels labels, ZoneId zone) {
        var words = new ArrayList<String>();
        for (int index : evaluation.evaluator().marks(row)) {
            String name = evaluation.columns().at(index).name();
            Object value = row.get(index);
            var label = labels.column(name);
            String unit = value == null || label.unit() == null ? "" : " " + label.unit();
            words.add(label.text() + " " + (value == null ? "missing" : labels.value(name, value, zone)) + unit);
        }
        return String.join(", ", words);
    }

    void add(Map<Digest, BackTestFinding> atSlot) {
        byKey.putAll(atSlot);
    }

    /** What these are more, and fewer, than the rule's own. */
    BackTestDifference from(ToldFindings asItIs) {
        var more = without(asItIs);
        var fewer = asItIs.without(this);
        return new BackTestDifference(more.size(), first(more), fewer.size(), first(fewer));
    }

    private List<BackTestFinding> without(ToldFindings other) {
        return byKey.entrySet().stream()
                .filter(each -> !other.byKey.containsKey(each.getKey()))
                .map(Map.Entry::getValue)
                .sorted(LATEST_FIRST)
                .toList();
    }

    private static List<BackTestFinding> first(List<BackTestFinding> all) {
        return List.copyOf(all.subList(0, Math.min(MOST_LISTED, all.size())));
    }
}
