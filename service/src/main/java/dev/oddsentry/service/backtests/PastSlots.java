package dev.oddsentry.service.backtests;

import dev.oddsentry.core.condition.Grouping.Need;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.RuleDefinition.ExpectedGroups.OfLastChecks;
import dev.oddsentry.core.schedule.Schedule;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.web.RefusedException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;

/**
 * The slots of a rule's schedule in a stretch of the past.
 *
 * @param warmUp slots before the stretch, run so that memory and history are there, and not counted
 * @param counted those of the stretch
 */
record PastSlots(List<Instant> warmUp, List<Instant> counted) {
    private static final int MOST = 10_000;

    /** @throws RefusedException if there are none, or more than anyone waits for */
    static PastSlots of(RuleDefinition rule, Schedule schedule, Instant from, Instant to, Collection<Need> needs) {
        var counted = between(schedule, from, to);
        if (counted.isEmpty())
            throw RefusedException.invalid(
                    "The rule's schedule has no slot in this stretch; it may be checked on demand only, or start later.");
        int enough = enough(rule, needs);
        Instant start = start(rule, from, counted, enough, needs);
        var before = between(schedule, start, from);
        var stretch = longest(rule, from, needs);
        int first = Math.max(0, before.size() - enough);
        while (first > 0 && !before.get(first - 1).isBefore(from.minus(stretch))) first--;
        var warmUp = before.subList(first, before.size());
        if (warmUp.size() + counted.size() > MOST)
            throw RefusedException.invalid("That is " + (warmUp.size() + counted.size()) + " slots, and " + MOST
                    + " is the most; give fewer days.");
        return new PastSlots(warmUp, counted);
    }

    private static List<Instant> between(Schedule schedule, Instant from, Instant to) {
        var slots = new ArrayList<Instant>();
        var next = schedule.nextAfter(from.minusNanos(1));
        while (next.isPresent() && next.get().isBefore(to)) {
            slots.add(next.get());
            if (slots.size() > MOST)
                throw RefusedException.invalid(
                        "That is more than " + MOST + " slots, which is the most; give fewer days.");
            next = schedule.nextAfter(next.get());
        }
        return slots;
    }

    /** One at least: without it the first slot would tell all that is there as new. */
    private static int enough(RuleDefinition rule, Collection<Need> needs) {
        int enough = Math.max(
                rule.memory().openAfter().checks(), rule.memory().clearAfter().checks());
        for (var need : needs) enough = Math.max(enough, need.points());
        if (rule.groups() != null && rule.groups().from() instanceof OfLastChecks(int checks))
            enough = Math.max(enough, checks);
        return enough;
    }

    private static Instant start(
            RuleDefinition rule, Instant from, List<Instant> counted, int enough, Collection<Need> needs) {
        Duration gap = counted.size() < 2
                ? Duration.ofDays(45)
                : Duration.between(counted.getFirst(), counted.getLast()).dividedBy(counted.size() - 1);
        // Twice as far, since gaps differ: a weekend, a short month.
        var byCount = gap.multipliedBy(2L * enough).plusDays(1);
        var byStretch = longest(rule, from, needs);
        return from.minus(byCount.compareTo(byStretch) > 0 ? byCount : byStretch);
    }

    private static Duration longest(RuleDefinition rule, Instant from, Collection<Need> needs) {
        var moment = new Moment(from, rule.zone());
        return needs.stream()
                .map(need -> Duration.between(
                        need.stretch().negated().addTo(moment.local()).toInstant(), from))
                .max(Duration::compareTo)
                .orElse(Duration.ZERO);
    }
}
