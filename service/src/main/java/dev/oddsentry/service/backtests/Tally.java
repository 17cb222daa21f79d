package dev.oddsentry.service.backtests;

import dev.oddsentry.service.backtests.BackTestResult.SlotResult;
import dev.oddsentry.service.backtests.BackTestResult.VariantResult;
import java.util.ArrayList;
import java.util.List;

/** Counts the slots of one variant. */
final class Tally {
    private final Variant variant;
    private final List<SlotResult> slots = new ArrayList<>();
    private final ToldFindings told = new ToldFindings();
    private int checks;
    private int mails;
    private int news;
    private int unevaluated;
    private long mostExceptions;

    Tally(Variant variant) {
        this.variant = variant;
    }

    void add(ReplayRunner.Step step) {
        checks++;
        if (step.news() > 0) mails++;
        news += step.news();
        told.add(step.told());
        if (step.unevaluated() > 0) unevaluated++;
        mostExceptions = Math.max(mostExceptions, step.exceptions());
        boolean silent = step.news() == 0 && step.exceptions() == 0 && step.unevaluated() == 0;
        if (!silent)
            slots.add(new SlotResult(step.slot(), step.exceptions(), step.critical(), step.news(), step.unevaluated()));
    }

    /** @param asItIs that of the rule as it is, which may be this one */
    VariantResult result(Tally asItIs) {
        return new VariantResult(
                variant.thresholds(),
                variant.exceptions(),
                variant.without(),
                checks,
                mails,
                news,
                mostExceptions,
                unevaluated,
                asItIs == this ? null : told.from(asItIs.told),
                slots);
    }
}
