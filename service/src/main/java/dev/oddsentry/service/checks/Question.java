package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.KnownTable;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.memory.Transition;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.queries.RunningQuery;
import dev.oddsentry.service.sources.Source;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What is asked at one slot, with everything that the answer depends on besides the source's rows.
 *
 * @param known every finding as memory holds it; used up by the reckoning
 * @param tick how the rule's good checks are counted at this one
 * @param transition what a person did that this check owes something to
 * @param curious whether a person looks on, who wants to be told of texts that no row has
 * @param running to follow and cancel its query by; null where nobody does
 * @param sought the identity of which everything is kept; null for none
 * @param copy the key of the personal copy that asks; null where the rule has none
 * @param newcomer whether the copy came when others had been checked already
 * @param wanted the keys of those whose rows are kept though they do not move; null where any row may be wanted
 */
public record Question(
        RuleDefinition rule,
        QueryDefinition query,
        Source source,
        Moment moment,
        Thresholds thresholds,
        KnownTable known,
        Patience.Tick tick,
        Transition transition,
        Past past,
        boolean curious,
        @Nullable Digest sought,
        @Nullable RunningQuery running,
        @Nullable Set<Digest> wanted,
        @Nullable String copy,
        boolean newcomer) {

    Question(
            RuleDefinition rule,
            QueryDefinition query,
            Source source,
            Moment moment,
            Thresholds thresholds,
            KnownTable known,
            Patience.Tick tick,
            Transition transition,
            Past past,
            boolean curious) {
        this(
                rule,
                query,
                source,
                moment,
                thresholds,
                known,
                tick,
                transition,
                past,
                curious,
                null,
                null,
                null,
                null,
                false);
    }

    /** The same for a personal copy. @param key null where the rule has none */
    Question ofCopy(@Nullable String key, boolean isNewcomer) {
        return new Question(
                rule,
                query,
                source,
                moment,
                thresholds,
                known,
                tick,
                transition,
                past,
                curious,
                sought,
                running,
                wanted,
                key,
                isNewcomer);
    }

    /** The same, looking out for one identity. */
    Question seeking(Digest identity) {
        return new Question(
                rule,
                query,
                source,
                moment,
                thresholds,
                known,
                tick,
                transition,
                past,
                curious,
                identity,
                running,
                wanted,
                copy,
                newcomer);
    }
}
