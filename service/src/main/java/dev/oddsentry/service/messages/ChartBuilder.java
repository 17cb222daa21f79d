package dev.oddsentry.service.messages;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.condition.Grouping.Need;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.extracts.chart.Chart;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.reporting.ReportPlan;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;

/** The trend of a rule's measure over its past checks, for the worst groups in a message. */
final class ChartBuilder {
    private static final int MOST_GROUPS = 5;
    private static final int MOST_POINTS = 60;
    /** A line through fewer says nothing. */
    private static final int FEWEST_POINTS = 2;

    private ChartBuilder() {}

    /** Empty where the rule asks for none, or nothing was measured before. */
    static Optional<Chart> of(MessageContext context, Evaluation evaluation, MessageDraft draft) {
        String name = context.rule().delivery().chart();
        if (name == null) return Optional.empty();
        var measured = evaluation.conditions().recorded().stream()
                .filter(each -> each.text().equals(name))
                .findFirst();
        if (measured.isEmpty()) return Optional.empty();
        var lines = lines(context, evaluation, draft, measured.get());
        if (lines.isEmpty()) return Optional.empty();
        var label = context.labels().column(name);
        var rule = context.rule();
        return Optional.of(new Chart(
                label.text(), label.unit(), rule.zone(), rule.delivery().texts().language(), lines));
    }

    private static List<Chart.Line> lines(
            MessageContext context, Evaluation evaluation, MessageDraft draft, Measured measured) {
        var byGroup = new HashMap<Digest, RuleEvaluator.Point>();
        evaluation.evaluator().points().stream()
                .filter(point -> point.measured().equals(measured))
                .forEach(point -> byGroup.put(point.group(), point));
        var past = evaluation.input().past().series(Map.of(measured, new Need(MOST_POINTS, Span.ZERO)));
        var lines = new ArrayList<Chart.Line>();
        var worstFirst = draft.plan().stream()
                .sorted(Comparator.comparing(ReportPlan.Item::severity).reversed())
                .map(item -> byGroup.get(item.subject().key()))
                .filter(Objects::nonNull)
                .limit(MOST_GROUPS)
                .toList();
        for (RuleEvaluator.Point now : worstFirst) {
            var points = new ArrayList<Chart.Point>();
            past.of(now.group(), measured)
                    .points()
                    .forEach(point -> points.add(new Chart.Point(point.slot(), point.value())));
            points.add(new Chart.Point(context.moment().slot(), now.value()));
            if (points.size() < FEWEST_POINTS) continue;
            String group = now.per().isEmpty()
                    ? ""
                    : CellText.joined(now.per(), context.rule().zone());
            lines.add(new Chart.Line(group, points));
        }
        return lines;
    }
}
