package dev.oddsentry.service.work;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.time.Moment;
import java.time.Duration;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What is run of the slots that came due while nobody ran checks. */
class MissedSlotsTest {
    private static final Instant FIRST = Instant.parse("2026-05-04T06:00:00Z");

    private static MissedSlots due(String missed, String since, Instant now) {
        var query = (QueryDefinition) Document.read("{kind: query, name: sailings, source: ferry, sql: 'select :since',"
                        + " parameters: {since: {type: instant}}}")
                .definition();
        var rule = (RuleDefinition) Document.read("{kind: rule, name: late, owner: Traffic reporting, query: sailings,"
                        + " parameters: {since: '" + since + "'}, memory: {key: [sailing]},"
                        + " schedule: {start: 2026-01-01T06:00, recur: FREQ=DAILY" + missed + "}}")
                .definition();
        return MissedSlots.of(rule, query, rule.schedule().in(rule.zone(), null), new Moment(FIRST, rule.zone()), now);
    }

    @ParameterizedTest
    @CsvSource(
            nullValues = "-",
            value = {
                // in time: whatever the rule says, the slot is run
                "latest, now - 1 day,  2026-05-04T06:00:01Z, 2026-05-04T06:00:00Z, 1, 2026-05-05T06:00:00Z",
                "each,   now - 1 day,  2026-05-04T06:00:01Z, 2026-05-04T06:00:00Z, 1, 2026-05-05T06:00:00Z",
                "skip,   now - 1 day,  2026-05-04T06:00:01Z, 2026-05-04T06:00:00Z, 1, 2026-05-05T06:00:00Z",
                // three days late
                "latest, now - 1 day,  2026-05-06T08:00:00Z, 2026-05-06T06:00:00Z, 3, 2026-05-07T06:00:00Z",
                "each,   now - 9 days, 2026-05-06T08:00:00Z, 2026-05-04T06:00:00Z, 1, 2026-05-05T06:00:00Z",
                "skip,   now - 1 day,  2026-05-06T08:00:00Z, -,                    3, 2026-05-07T06:00:00Z",
                // the default goes by the window: a day's leaves a gap, a week's does not
                "-,      now - 1 day,  2026-05-06T08:00:00Z, 2026-05-04T06:00:00Z, 1, 2026-05-05T06:00:00Z",
                "-,      now - 7 days, 2026-05-06T08:00:00Z, 2026-05-06T06:00:00Z, 3, 2026-05-07T06:00:00Z",
                "-,      2026-01-01,   2026-05-06T08:00:00Z, 2026-05-06T06:00:00Z, 3, 2026-05-07T06:00:00Z",
            })
    void isRunAsTheRuleSaysOrAsItsWindowWants(
            @Nullable String missed, String since, Instant now, @Nullable Instant run, int slotsCovered, Instant next) {
        var due = due(missed == null ? "" : ", missed: " + missed, since, now);
        assertThat(due.run().orElse(null)).isEqualTo(run);
        assertThat(due.slotsCovered()).isEqualTo(slotsCovered);
        assertThat(due.next()).contains(next);
    }

    @Test
    void ofMoreThanAnyoneMakesUpForTheFirstThatIsRunStandsForThoseBeforeIt() {
        var due = due(", missed: each", "now - 1 day", FIRST.plus(Duration.ofDays(59)));
        assertThat(due.slotsCovered()).isEqualTo(11);
        assertThat(due.run()).contains(FIRST.plus(Duration.ofDays(10)));
        assertThat(due.next()).contains(FIRST.plus(Duration.ofDays(11)));
    }
}
