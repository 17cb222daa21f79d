package dev.oddsentry.service.checks;

import dev.oddsentry.service.evaluation.PriorChecks;
import dev.oddsentry.service.memory.Scope;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** The state of a rule or personal copy before its next check: where windows since the last check begin. */
@Component
public class PriorChecksLookup {
    private final CheckStore checks;
    private final CopyStore copies;

    PriorChecksLookup(CheckStore checks, CopyStore copies) {
        this.checks = checks;
        this.copies = copies;
    }

    /** @param scope null for a rule that is not saved */
    public PriorChecks of(@Nullable Scope scope) {
        if (scope == null) return PriorChecks.NONE;
        var rule = checks.ofRule(scope.ruleId());
        if (scope.copy() == null) return rule;
        var copy = copies.priorChecks(scope.ruleId()).get(scope.copy());
        if (copy == null) return new PriorChecks(rule.newcomer(), 0, null, rule.pending());
        return new PriorChecks(
                copy.newcomer(),
                copy.goodSlots(),
                copy.lastGoodSlot(),
                rule.pending().and(copy.pending()));
    }
}
