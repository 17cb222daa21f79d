package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.RuleDefinition.LimitsDefinition;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import java.time.Duration;

/** What a check of a rule may cost. */
final class LimitsFields {
    private static final int MOST_RETRIES = 20;

    static final Part<LimitsDefinition> PART = new Part<>("limits", "What a check may cost.");

    private static final Field<LimitsDefinition, Duration> TIME_LIMIT = PART.field(
                    "time_limit", Durations.TIME, LimitsDefinition::timeLimit, "A check that takes longer fails.")
            .usually("learned from the last 20 successful checks; never above the source's limit");
    private static final Field<LimitsDefinition, Integer> RETRIES = PART.field(
                    "retries",
                    FieldTypes.whole(0, MOST_RETRIES),
                    LimitsDefinition::retries,
                    "Retries of a failed scheduled check.")
            .usual(0);
    private static final Field<LimitsDefinition, Duration> RETRY_AFTER = PART.field(
                    "retry_after", Durations.TIME, LimitsDefinition::retryAfter, "The wait before each retry.")
            .usual(LimitsDefinition.USUAL_WAIT);

    private LimitsFields() {}

    static LimitsDefinition read(Fields fields) {
        return new LimitsDefinition(TIME_LIMIT.orNull(fields), RETRIES.in(fields), RETRY_AFTER.in(fields));
    }
}
