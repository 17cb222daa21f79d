package dev.oddsentry.service.copies;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.evaluation.Refusals;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Finds the personal copies of a rule for those who look on, outside a check. */
@Component
public class CopyLookup {
    private static final int MOST_NAMED = 12;

    private final CopyRecipients recipients;
    private final Schedules schedules;

    CopyLookup(CopyRecipients recipients, Schedules schedules) {
        this.recipients = recipients;
        this.schedules = schedules;
    }

    /** All that there are at this instant; none where the rule has none. */
    public List<PersonalCopy> all(RuleDefinition rule, Instant at) {
        if (rule.copies() == null) return List.of();
        return recipients.of(rule, rule.copies(), schedules.moment(rule, at));
    }

    /**
     * The copy of that key.
     *
     * @param key null for the first, and where the rule has none
     * @return null where the rule has none
     * @throws RefusedException if there is no such copy, naming those that there are
     */
    @Nullable
    public PersonalCopy of(RuleDefinition rule, Instant at, @Nullable String key) {
        if (rule.copies() == null) {
            if (key != null)
                throw RefusedException.invalid("The rule has no personal copies, so none for \"" + key + "\".");
            return null;
        }
        var copies = Refusals.inWords(() -> all(rule, at));
        if (key == null) return copies.getFirst();
        return copies.stream()
                .filter(copy -> copy.key().equals(key))
                .findFirst()
                .orElseThrow(() -> RefusedException.notFound(
                        "There is no personal copy for \"" + key + "\": there are " + named(copies) + "."));
    }

    /** The rule as that copy asks it; the rule itself where it has none. */
    public RuleDefinition rule(RuleDefinition rule, Instant at, @Nullable String key) {
        var copy = of(rule, at, key);
        return copy == null ? rule : copy.applyTo(rule);
    }

    private static String named(List<PersonalCopy> copies) {
        String first = copies.stream().limit(MOST_NAMED).map(PersonalCopy::key).collect(Collectors.joining(", "));
        return copies.size() > MOST_NAMED ? first + " and " + (copies.size() - MOST_NAMED) + " more" : first;
    }
}
