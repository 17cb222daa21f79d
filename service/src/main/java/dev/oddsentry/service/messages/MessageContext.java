package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.memory.Scope;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a mail is about.
 *
 * @param scope whose memory has the last reports; null for a rule that was never saved
 * @param title what the mail calls it
 * @param labels the words of its columns and conditions
 * @param copy whose personal copy it is; null where there is none
 */
public record MessageContext(
        @Nullable Scope scope,
        RuleDefinition rule,
        String title,
        Moment moment,
        RuleLabels labels,
        @Nullable PersonalCopy copy) {

    public static MessageContext of(Attempt attempt) {
        var rule = attempt.rule().definition();
        return new MessageContext(
                attempt.scope(), rule, rule.title(), attempt.moment(), attempt.labels(), attempt.copy());
    }

    /** The same as the recipients of a draft get it: in their language, and in their variant. */
    MessageContext of(MessageDraft draft) {
        var delivery = rule.delivery();
        if (draft.variant() != null) delivery = delivery.as(draft.variant());
        if (draft.language() != null) delivery = delivery.in(draft.language());
        return new MessageContext(scope, rule.withDelivery(delivery), title, moment, labels, copy);
    }

    /** The recipients, unless a split has others. */
    public List<String> to() {
        return copy == null || copy.to().isEmpty() ? rule.delivery().to() : copy.to();
    }
}
