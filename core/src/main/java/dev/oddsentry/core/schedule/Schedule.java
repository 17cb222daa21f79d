package dev.oddsentry.core.schedule;

import dev.oddsentry.core.time.WorkingDays;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** When a rule is due: the union of its recurrences and single dates, without those left out, moved off the holidays. */
public final class Schedule {
    public static final Schedule ON_DEMAND_ONLY = new Schedule(List.of(), null);

    /** So many slots in a row that are all left out end the search. */
    private static final int MOST_LEFT_OUT = 20_000;

    private final List<? extends Slots> slots;
    private final Exceptions exceptions;
    private final @Nullable Moving moving;
    private final @Nullable Instant until;

    /**
     * Slots left out, as RFC 5545 has them in EXDATE.
     *
     * @param dates whole days in the zone of the schedule
     */
    public record Exceptions(Set<Instant> instants, Set<LocalDate> dates) {
        public static final Exceptions NONE = new Exceptions(Set.of(), Set.of());
    }

    /**
     * What a schedule is made of.
     *
     * @param start local in the zone
     * @param recur RFC 5545 rules
     * @param workingDays one slot a month for each: 3 for the third working day, -1 for the last
     * @param also single local times
     * @param except local times left out
     * @param exceptDates whole days left out
     * @param calendar null where none was named: Monday to Friday
     * @param onHoliday null where slots do not move
     */
    public record Parts(
            LocalDateTime start,
            ZoneId zone,
            List<String> recur,
            List<Integer> workingDays,
            List<LocalDateTime> also,
            List<LocalDateTime> except,
            List<LocalDate> exceptDates,
            @Nullable LocalDateTime until,
            @Nullable WorkingDays calendar,
            @Nullable OnHoliday onHoliday) {}

    /** @throws dev.oddsentry.core.problem.InvalidDefinitionException if a recurrence is none */
    public static Schedule of(Parts parts) {
        var days = parts.calendar() == null ? WorkingDays.MONDAY_TO_FRIDAY : parts.calendar();
        var slots = new ArrayList<Slots>();
        parts.recur().forEach(rule -> slots.add(Recurrence.of(rule, parts.start(), parts.zone())));
        parts.workingDays().forEach(number -> slots.add(new NthWorkingDay(number, days, parts.start(), parts.zone())));
        slots.add(GivenDates.of(instants(parts.also(), parts.zone())));
        return new Schedule(
                slots,
                new Exceptions(Set.copyOf(instants(parts.except(), parts.zone())), Set.copyOf(parts.exceptDates())),
                parts.onHoliday() == null ? null : new Moving(parts.onHoliday(), days),
                parts.until() == null
                        ? null
                        : parts.until().atZone(parts.zone()).toInstant(),
                parts.zone());
    }

    private static List<Instant> instants(List<LocalDateTime> locals, ZoneId zone) {
        return locals.stream().map(local -> local.atZone(zone).toInstant()).toList();
    }

    /** How slots move off days that are not worked. */
    public record Moving(OnHoliday how, WorkingDays calendar) {}

    private final ZoneId zone;

    /** @param until the last instant at which it may be due; null for no end */
    public Schedule(List<Recurrence> recurrences, @Nullable Instant until) {
        this(recurrences, Exceptions.NONE, null, until, ZoneOffset.UTC);
    }

    Schedule(
            List<? extends Slots> slots,
            Exceptions exceptions,
            @Nullable Moving moving,
            @Nullable Instant until,
            ZoneId zone) {
        this.slots = List.copyOf(slots);
        this.exceptions = exceptions;
        this.moving = moving;
        this.until = until;
        this.zone = zone;
    }

    /** The first slot strictly after {@code after}; empty once the schedule has ended. */
    public Optional<Instant> nextAfter(Instant after) {
        return moving == null ? nextPlanned(after) : nextMoved(after, moving);
    }

    /** Before anything moves. */
    private Optional<Instant> nextPlanned(Instant after) {
        Instant from = after;
        for (int i = 0; i < MOST_LEFT_OUT; i++) {
            Instant asked = from;
            var next = slots.stream()
                    .flatMap(each -> each.nextAfter(asked).stream())
                    .min(Instant::compareTo)
                    .filter(slot -> until == null || !slot.isAfter(until));
            if (next.isEmpty() || !isLeftOut(next.get())) return next;
            from = next.get();
        }
        return Optional.empty();
    }

    private boolean isLeftOut(Instant slot) {
        return exceptions.instants.contains(slot)
                || exceptions.dates.contains(slot.atZone(zone).toLocalDate());
    }

    /**
     * Dates move to where they belong without overtaking one another, but two that meet on one day may change places; so all that
     * move to the day of the first one found are looked at.
     */
    private Optional<Instant> nextMoved(Instant after, Moving by) {
        Instant from = earliestThatMovesTo(after.atZone(zone).toLocalDate(), by)
                .atStartOfDay(zone)
                .toInstant()
                .minusNanos(1);
        Instant best = null;
        for (int i = 0; i < MOST_LEFT_OUT; i++) {
            var planned = nextPlanned(from);
            if (planned.isEmpty()) break;
            from = planned.get();
            var moved = moved(from, by);
            if (moved.isEmpty() || !moved.get().isAfter(after)) continue;
            boolean laterDay = best != null
                    && moved.get()
                            .atZone(zone)
                            .toLocalDate()
                            .isAfter(best.atZone(zone).toLocalDate());
            if (laterDay) break;
            if (best == null || moved.get().isBefore(best)) best = moved.get();
        }
        return Optional.ofNullable(best);
    }

    private static LocalDate earliestThatMovesTo(LocalDate date, Moving by) {
        if (by.how() != OnHoliday.NEXT_WORKING_DAY) return date;
        // The working day before, not this one: whatever lies between the two moves here.
        return by.calendar().onOrBefore(date.minusDays(1)).plusDays(1);
    }

    /** The same local time on the day it moves to. */
    private Optional<Instant> moved(Instant planned, Moving by) {
        var local = planned.atZone(zone);
        return by.how()
                .moved(local.toLocalDate(), by.calendar())
                .map(date -> date.equals(local.toLocalDate())
                        ? planned
                        : date.atTime(local.toLocalTime()).atZone(zone).toInstant());
    }

    public List<Instant> next(int count, Instant after) {
        var found = new ArrayList<Instant>();
        Optional<Instant> next = nextAfter(after);
        while (next.isPresent() && found.size() < count) {
            found.add(next.get());
            next = nextAfter(next.get());
        }
        return List.copyOf(found);
    }

    /** The slots of {@code from} on that are due by {@code now}, where {@code from} is due already. */
    public Due due(Instant from, Instant now) {
        Instant latest = from;
        int count = 1;
        var next = nextAfter(from);
        while (next.isPresent() && !next.get().isAfter(now)) {
            latest = next.get();
            count++;
            next = nextAfter(latest);
        }
        return new Due(latest, count, next);
    }

    /**
     * @param latest the latest slot that is due
     * @param slots how many are due; more than one after the service was down
     * @param next the first slot to come
     */
    public record Due(Instant latest, int slots, Optional<Instant> next) {}

    /** The date on which the calendar's entered dates run out, if slots move by it. */
    public Optional<LocalDate> calendarKnownUntil() {
        return Optional.ofNullable(moving).map(by -> by.calendar().lastKnown());
    }
}
