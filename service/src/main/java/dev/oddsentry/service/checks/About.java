package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.judging.RuleLabels;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.memory.Scope;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a mail is about.
 *
 * @param scope whose memory says what was told before; null for a rule that was never saved
 * @param title what the mail calls it
 * @param labels the words of its columns and conditions
 * @param copy whose personal copy it is; null where there is none
 */
record About(
        @Nullable Scope scope,
        RuleDefinition rule,
        String title,
        Moment moment,
        RuleLabels labels,
        @Nullable PersonalCopy copy) {

    static About of(Attempt attempt) {
        var rule = attempt.rule().definition();
        return new About(attempt.scope(), rule, rule.title(), attempt.moment(), attempt.labels(), attempt.copy());
    }

    /** The same to readers of another language. */
    About in(Language language) {
        return new About(scope, rule.withDelivery(rule.delivery().in(language)), title, moment, labels, copy);
    }

    /** Those who hear unless a split names others. */
    List<String> to() {
        return copy == null || copy.to().isEmpty() ? rule.delivery().to() : copy.to();
    }
}
