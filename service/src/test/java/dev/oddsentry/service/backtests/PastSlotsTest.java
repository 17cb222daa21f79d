package dev.oddsentry.service.backtests;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.condition.Grouping.Need;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Which past slots a back-test goes over, and how many before them to warm up. */
class PastSlotsTest {
    private static final Instant FROM = Instant.parse("2026-05-10T00:00:00Z");
    private static final Instant TO = Instant.parse("2026-05-15T00:00:00Z");

    private static PastSlots slots(String recur, String more, List<Need> needs) {
        var rule = (RuleDefinition)
                Document.read("{kind: rule, name: fuel, owner: Traffic reporting, query: bunkering, per: [vessel],"
                                + more + " schedule: {start: 2026-01-01T06:00, recur: " + recur + "}}")
                        .definition();
        return PastSlots.of(rule, rule.schedule().in(rule.zone(), null), FROM, TO, needs);
    }

    @Test
    void theSlotsOfTheStretchCountAndOneBeforeWarmsUp() {
        var slots = slots("FREQ=DAILY", "", List.of());
        assertThat(slots.counted()).hasSize(5).startsWith(Instant.parse("2026-05-10T06:00:00Z"));
        assertThat(slots.warmUp()).containsExactly(Instant.parse("2026-05-09T06:00:00Z"));
    }

    @Test
    void asManyWarmUpAsHistoryAndExpectedGroupsLookBackOn() {
        assertThat(slots("FREQ=DAILY", "", List.of(new Need(8, Span.ZERO))).warmUp())
                .hasSize(8);
        assertThat(slots("FREQ=DAILY", " expected_groups: last 3 checks,", List.of())
                        .warmUp())
                .hasSize(3);
        assertThat(slots("FREQ=DAILY", "", List.of(new Need(1, Span.of(14, Span.Unit.DAY))))
                        .warmUp())
                .hasSize(14);
        assertThat(slots("FREQ=WEEKLY;BYDAY=MO", "", List.of(new Need(5, Span.ZERO)))
                        .warmUp())
                .as("over weeks")
                .hasSize(5);
    }

    @Test
    void noSlotOrTooManyAreRefusedInWords() {
        assertThatThrownBy(() -> slots("FREQ=YEARLY;BYMONTH=1", "", List.of()))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("has no slot in this stretch");
        assertThatThrownBy(() -> slots("FREQ=SECONDLY", "", List.of()))
                .isInstanceOf(RefusedException.class)
                .hasMessageContaining("more than 10000 slots");
    }
}
