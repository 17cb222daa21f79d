package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.TriggersDefinition.Outcome;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.PartCount;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.rules.CheckState;
import java.math.BigDecimal;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a good check came to, or one personal copy of it.
 *
 * @param state how it ended
 * @param worstUpdate the highest severity that was reported; null if nothing was, and for the sum of copies
 * @param parts what each part of the condition left, and what it stayed unknown for
 * @param tookMillis from asking the source until its last row was taken
 */
record CheckSummary(
        CheckState state,
        long rows,
        long exceptions,
        long unknownRows,
        long unevaluated,
        long opened,
        long cleared,
        int news,
        int messages,
        int tookMillis,
        @Nullable Severity worstUpdate,
        List<PartCount> parts) {

    static CheckSummary of(Evaluation evaluation, ReportPlan plan) {
        long unevaluated = evaluation.evaluator().unevaluated().size();
        boolean plain = evaluation.input().rule().isPlainReport();
        return new CheckSummary(
                state(plan.updates().isEmpty() ? 0 : plan.messages().size(), unevaluated),
                evaluation.reading().rows(),
                evaluation.exceptions().count(),
                evaluation.evaluator().unknownRows(),
                unevaluated,
                plain ? 0 : SafetyLimit.opened(evaluation.moves()),
                SafetyLimit.cleared(evaluation.moves()),
                plan.updates().size(),
                plan.messages().size(),
                Math.toIntExact(evaluation.reading().took().toMillis()),
                plain
                        ? null
                        : plan.updates().stream()
                                .map(ReportPlan.Item::severity)
                                .max(Comparator.naturalOrder())
                                .orElse(null),
                PartCount.of(evaluation));
    }

    /** @param messages messages with updates; a "nothing new" message does not count as fired */
    private static CheckState state(int messages, long unevaluated) {
        if (messages > 0) return CheckState.FIRED;
        return unevaluated > 0 ? CheckState.INCOMPLETE : CheckState.QUIET;
    }

    /** Nobody follows a check of which a part was not evaluated as if it had been quiet. */
    Set<Outcome> outcomes() {
        var outcomes = EnumSet.noneOf(Outcome.class);
        if (state == CheckState.FIRED) outcomes.add(Outcome.FIRED);
        else if (state == CheckState.QUIET) outcomes.add(Outcome.QUIET);
        if (rows == 0) outcomes.add(Outcome.NO_ROWS);
        return outcomes;
    }

    /** As the database sums them up; null where there is none. */
    record Sums(
            @Nullable BigDecimal rows,
            @Nullable BigDecimal exceptions,
            @Nullable BigDecimal unknownRows,
            @Nullable BigDecimal unevaluated,
            @Nullable BigDecimal opened,
            @Nullable BigDecimal cleared,
            @Nullable BigDecimal news,
            @Nullable BigDecimal messages,
            @Nullable Integer tookMillis) {
        CheckSummary counts(List<PartCount> parts) {
            int sent = (int) whole(messages);
            return new CheckSummary(
                    state(whole(news) == 0 ? 0 : sent, whole(unevaluated)),
                    whole(rows),
                    whole(exceptions),
                    whole(unknownRows),
                    whole(unevaluated),
                    whole(opened),
                    whole(cleared),
                    (int) whole(news),
                    sent,
                    tookMillis == null ? 0 : tookMillis,
                    null,
                    parts);
        }

        private static long whole(@Nullable BigDecimal sum) {
            return sum == null ? 0 : sum.longValueExact();
        }
    }
}
