package dev.oddsentry.service.work;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.schedule.Missed;
import dev.oddsentry.core.schedule.Schedule;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.queries.Parameters;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;

/**
 * What is run of the slots that are due: usually one, more after the service was down.
 *
 * @param run the slot to run now; empty where they are skipped
 * @param slotsCovered the number of slots that the check covers
 * @param next the slot to wait for after it, which may be due already
 */
record MissedSlots(Optional<Instant> run, int slotsCovered, Optional<Instant> next) {
    /** A slot so late was missed, and not just waited for its turn. */
    private static final Duration LATE = Duration.ofMinutes(5);
    /** Days are not all as long as one another. */
    private static final Duration CLOCK_CHANGE = Duration.ofHours(1);

    /** @param first the first slot that is due, by {@code now} */
    static MissedSlots of(RuleDefinition rule, QueryDefinition query, Schedule schedule, Moment first, Instant now) {
        Instant from = first.slot();
        var due = schedule.due(from, now);
        return switch (policy(rule, query, schedule, first)) {
            case LATEST -> new MissedSlots(Optional.of(due.latest()), due.slots(), due.next());
            case EACH -> each(schedule, from, due);
            case SKIP -> {
                boolean late = from.plus(LATE).isBefore(now);
                yield late
                        ? new MissedSlots(Optional.empty(), due.slots(), due.next())
                        : new MissedSlots(Optional.of(due.latest()), due.slots(), due.next());
            }
        };
    }

    /** Where each slot looks at its own stretch of time, a slot left out would leave a gap. */
    private static Missed policy(RuleDefinition rule, QueryDefinition query, Schedule schedule, Moment first) {
        Instant from = first.slot();
        if (rule.schedule().missed() != null) return rule.schedule().missed();
        var next = schedule.nextAfter(from);
        var window = Parameters.window(first, rule, query);
        boolean gapless = next.isPresent()
                && window.isPresent()
                && window.get().compareTo(Duration.between(from, next.get()).plus(CLOCK_CHANGE)) <= 0;
        return gapless ? Missed.EACH : Missed.LATEST;
    }

    /** The oldest first; of more than anyone makes up for, the first that is run stands for those before it. */
    private static MissedSlots each(Schedule schedule, Instant from, Schedule.Due due) {
        int beyond = Math.max(0, due.slots() - Missed.MOST_MADE_UP_FOR);
        Instant first = from;
        for (int i = 0; i < beyond; i++) first = schedule.nextAfter(first).orElseThrow();
        return new MissedSlots(Optional.of(first), beyond + 1, schedule.nextAfter(first));
    }
}
