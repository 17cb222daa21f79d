package dev.oddsentry.service.evaluation;

import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import java.util.List;

/** A group that could not be evaluated, in words, as kept with the check. */
public record UnevaluatedGroup(String group, String reason) {
    private static final int MOST_NAMED = 20;

    public static List<UnevaluatedGroup> first(Evaluation evaluation, Moment moment) {
        return evaluation.evaluator().unevaluated().stream()
                .limit(MOST_NAMED)
                .map(each -> new UnevaluatedGroup(CellText.joined(each.per(), moment.zone()), each.reason()))
                .toList();
    }
}
