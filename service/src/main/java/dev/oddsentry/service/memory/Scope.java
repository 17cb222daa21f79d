package dev.oddsentry.service.memory;

import dev.oddsentry.service.ids.RuleId;
import org.jooq.Condition;
import org.jooq.TableField;
import org.jspecify.annotations.Nullable;

/**
 * What is evaluated and remembered for itself: a rule, or one personal copy of it.
 *
 * @param copy the copy's key; null where the rule has none
 */
public record Scope(RuleId ruleId, @Nullable String copy) {
    public static Scope of(RuleId ruleId) {
        return new Scope(ruleId, null);
    }

    /** In a form that an index knows. */
    Condition holds(TableField<?, RuleId> rule, TableField<?, String> copyKey) {
        return rule.eq(ruleId).and(copy == null ? copyKey.isNull() : copyKey.eq(copy));
    }
}
