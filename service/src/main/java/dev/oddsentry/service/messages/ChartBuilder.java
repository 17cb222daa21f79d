package dev.oddsentry.service.messages;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.condition.Grouping.Need;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.judging.RuleJudge;
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

/** How the value that a rule measures moved over its past checks, for the worst of the groups that a mail tells of. */
final class ChartBuilder {
    private static final int MOST_GROUPS = 5;
    private static final int MOST_POINTS = 60;
    /** A line through fewer says nothing. */
    private static final int FEWEST_POINTS = 2;

    private ChartBuilder() {}

    /** Empty where the rule asks for none, or nothing was measured before. */
    static Optional<Chart> of(MessageContext about, Evaluation evaluation, MessageDraft letter) {
        String name = about.rule().delivery().chart();
        if (name == null) return Optional.empty();
        var measured = evaluation.judges().recorded().stream()
                .filter(each -> each.text().equals(name))
                .findFirst();
        if (measured.isEmpty()) return Optional.empty();
        var lines = lines(about, evaluation, letter, measured.get());
        if (lines.isEmpty()) return Optional.empty();
        var label = about.labels().column(name);
        var rule = about.rule();
        return Optional.of(new Chart(
                label.text(), label.unit(), rule.zone(), rule.delivery().texts().language(), lines));
    }

    private static List<Chart.Line> lines(
            MessageContext about, Evaluation evaluation, MessageDraft letter, Measured measured) {
        var byGroup = new HashMap<Digest, RuleJudge.Point>();
        evaluation.judge().points().stream()
                .filter(point -> point.measured().equals(measured))
                .forEach(point -> byGroup.put(point.group(), point));
        var past = evaluation.question().past().series(Map.of(measured, new Need(MOST_POINTS, Span.ZERO)));
        var lines = new ArrayList<Chart.Line>();
        var worstFirst = letter.told().stream()
                .sorted(Comparator.comparing(ReportPlan.Item::severity).reversed())
                .map(item -> byGroup.get(item.subject().key()))
                .filter(Objects::nonNull)
                .limit(MOST_GROUPS)
                .toList();
        for (RuleJudge.Point now : worstFirst) {
            var points = new ArrayList<Chart.Point>();
            past.of(now.group(), measured)
                    .points()
                    .forEach(point -> points.add(new Chart.Point(point.slot(), point.value())));
            points.add(new Chart.Point(about.moment().slot(), now.value()));
            if (points.size() < FEWEST_POINTS) continue;
            String group = now.per().isEmpty()
                    ? ""
                    : CellText.joined(now.per(), about.rule().zone());
            lines.add(new Chart.Line(group, points));
        }
        return lines;
    }
}
