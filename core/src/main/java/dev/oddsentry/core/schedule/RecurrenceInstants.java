package dev.oddsentry.core.schedule;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.LongStream;
import org.jspecify.annotations.Nullable;

/** The dates of a rule finer than a day. Its steps are instants of equal distance; what limits or divides them is read on the local clock at each. */
final class RecurrenceInstants {
    private static final Duration YEARS_WITHOUT_A_DATE = Duration.ofDays(40 * 366);
    /** Steps that give no date, before the search is given up. */
    private static final int MOST_STEPS = 5_000_000;

    private final RecurrenceParts parts;
    private final RecurrenceDays days;
    private final ZoneId zone;
    private final Instant start;
    private final Instant firstStep;
    private final Duration step;
    private final Duration unit;

    RecurrenceInstants(RecurrenceParts parts, LocalDateTime start, ZoneId zone, RecurrenceDays days) {
        this.parts = parts;
        this.days = days;
        this.zone = zone;
        this.start = start.atZone(zone).toInstant();
        this.unit = switch (parts.frequency()) {
            case HOURLY -> Duration.ofHours(1);
            case MINUTELY -> Duration.ofMinutes(1);
            default -> Duration.ofSeconds(1);
        };
        this.step = unit.multipliedBy(parts.interval());
        this.firstStep = isDivided() ? beginningOfUnit() : this.start;
    }

    /** Whether a step gives several dates, so that it is counted from the beginning of its hour or minute. */
    private boolean isDivided() {
        return switch (parts.frequency()) {
            case HOURLY -> !parts.minutes().isEmpty() || !parts.seconds().isEmpty();
            case MINUTELY -> !parts.seconds().isEmpty();
            default -> false;
        };
    }

    private Instant beginningOfUnit() {
        var local = start.atZone(zone);
        long into = unit.equals(Duration.ofHours(1)) ? local.getMinute() * 60L + local.getSecond() : local.getSecond();
        return start.minusSeconds(into);
    }

    Optional<Instant> nextAfter(Instant after) {
        Instant horizon = (after.isAfter(start) ? after : start).plus(YEARS_WITHOUT_A_DATE);
        Instant at = parts.count() > 0 ? firstStep : stepAtOrBefore(after);
        int counted = 0;
        for (int i = 0; i < MOST_STEPS && at.isBefore(horizon); i++) {
            var local = at.atZone(zone);
            var skipped = skipped(local);
            if (skipped != null) {
                at = stepAtOrAfter(skipped);
                continue;
            }
            for (Instant date : datesOf(at)) {
                if (date.isBefore(start)) continue;
                if (parts.count() > 0 && ++counted > parts.count()) return Optional.empty();
                if (isAfterEnd(date)) return Optional.empty();
                if (date.isAfter(after)) return Optional.of(date);
            }
            at = at.plus(step);
        }
        return Optional.empty();
    }

    private Instant stepAtOrBefore(Instant instant) {
        if (!instant.isAfter(firstStep)) return firstStep;
        return firstStep.plus(
                step.multipliedBy(Duration.between(firstStep, instant).dividedBy(step)));
    }

    private Instant stepAtOrAfter(Instant instant) {
        Instant before = stepAtOrBefore(instant);
        return before.isBefore(instant) ? before.plus(step) : before;
    }

    /** Where nothing of this day, or of this hour, is meant: when the next begins. Null where something may be. */
    private @Nullable Instant skipped(ZonedDateTime local) {
        if (!days.isMeant(local.toLocalDate()) && !days.isMeant(lastDayOf(local))) {
            Instant next = local.toLocalDate().plusDays(1).atStartOfDay(zone).toInstant();
            return next.isAfter(local.toInstant()) ? next : null;
        }
        boolean hourIsMeant = parts.hours().isEmpty() || parts.hours().contains(local.getHour());
        if (hourIsMeant || local.plus(unit).getHour() != local.getHour()) return null;
        Instant next = local.truncatedTo(ChronoUnit.HOURS).plusHours(1).toInstant();
        return next.isAfter(local.toInstant()) ? next : null;
    }

    /** Of a step that is divided, which may go on into the next day where offsets are not whole hours. */
    private LocalDate lastDayOf(ZonedDateTime local) {
        return isDivided() ? local.plus(unit).minusNanos(1).toLocalDate() : local.toLocalDate();
    }

    private List<Instant> datesOf(Instant at) {
        var dates = new ArrayList<Instant>();
        candidates(at).mapToObj(at::plusSeconds).filter(this::isMeant).forEach(dates::add);
        if (parts.positions().isEmpty()) return dates;
        return Recurrence.positions(parts.positions(), dates.size())
                .mapToObj(dates::get)
                .toList();
    }

    /** Seconds after the step. */
    private LongStream candidates(Instant at) {
        if (!isDivided()) return LongStream.of(0);
        long into = start.getEpochSecond() - firstStep.getEpochSecond();
        var seconds = parts.seconds().isEmpty() ? Set.of((int) (into % 60)) : parts.seconds();
        long minutes = unit.toMinutes();
        return LongStream.range(0, minutes)
                .filter(minute -> minutes == 1 || isMinute(at.plusSeconds(minute * 60), into / 60, minute))
                .flatMap(minute -> seconds.stream().sorted().mapToLong(second -> minute * 60 + second));
    }

    private boolean isMinute(Instant at, long ofStart, long minute) {
        return parts.minutes().isEmpty()
                ? minute == ofStart
                : parts.minutes().contains(at.atZone(zone).getMinute());
    }

    private boolean isMeant(Instant date) {
        var local = date.atZone(zone);
        return days.isMeant(local.toLocalDate())
                && (parts.hours().isEmpty() || parts.hours().contains(local.getHour()))
                && (parts.minutes().isEmpty() || parts.minutes().contains(local.getMinute()))
                && (parts.seconds().isEmpty() || parts.seconds().contains(local.getSecond()));
    }

    private boolean isAfterEnd(Instant date) {
        var until = parts.until();
        if (until == null) return false;
        return until.local() != null
                ? date.atZone(zone).toLocalDateTime().isAfter(until.local())
                : date.isAfter(Objects.requireNonNull(until.utc()).toInstant());
    }
}
