package dev.oddsentry.core.definition;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.schedule.Missed;
import dev.oddsentry.core.schedule.OnHoliday;
import dev.oddsentry.core.schedule.Recurrence;
import dev.oddsentry.core.schedule.Schedule;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.WorkingDays;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * What watches one query.
 *
 * @param id stable over renames, so that memory outlives them; null in a document that was never saved
 * @param owner the team it belongs to
 * @param query the name of the query it watches
 * @param zone where its slots, relative dates and windows are reckoned
 * @param parameters values by parameter name, as written
 * @param groups how rows are put together before they are judged; null where each row is judged
 * @param exceptions the condition over a row or a group; null where every one is an exception
 * @param severity bands, the first that holds counts
 * @param occasions what starts a check besides the schedule, and what it waits for
 * @param checking how a check of it runs
 * @param copies null where one check is for everyone
 * @param fireWhen the condition over the whole check; null for the mode's own
 * @param filing how people find it
 */
public record RuleDefinition(
        @Nullable String id,
        String name,
        String title,
        String owner,
        String query,
        ZoneId zone,
        Map<String, String> parameters,
        @Nullable GroupsDefinition groups,
        @Nullable String exceptions,
        List<Band> severity,
        @Nullable String fireWhen,
        MemoryDefinition memory,
        ScheduleDefinition schedule,
        OccasionsDefinition occasions,
        CheckingDefinition checking,
        @Nullable CopiesDefinition copies,
        DeliveryDefinition delivery,
        Filing filing)
        implements Definition {

    /**
     * How people find a rule among the others; nothing of it reaches a check.
     *
     * @param labels free words, in the order written
     * @param copiedFrom the name of the rule that it was copied from; null where it was not
     */
    public record Filing(List<String> labels, @Nullable String copiedFrom) {}

    /** @param condition null in the last band, which every other exception gets */
    public record Band(Severity severity, @Nullable String condition) {}

    /**
     * @param per the columns whose values make a group; empty for the whole result as one
     * @param measures what is measured of each group, in the order in which one may name another
     * @param from where the groups come from that are expected though they have no rows; null where none is
     */
    public record GroupsDefinition(
            List<String> per,
            Map<String, Measure> measures,
            @Nullable ExpectedGroups from) {}

    /** @param value an expression over aggregates */
    public record Measure(
            String value, @Nullable String label, @Nullable String unit) {}

    /** Which groups are judged even where they have no rows. */
    public sealed interface ExpectedGroups {
        /** Those that a query returns; it has the rule's {@code per} columns. */
        record OfQuery(String name) implements ExpectedGroups {}

        /** Those that one of the last so many good checks saw. */
        record OfLastChecks(int checks) implements ExpectedGroups {}
    }

    /**
     * How a check of the rule runs.
     *
     * @param timeLimit of one check; null for one that is learned from those before
     * @param retries how often a failed check is tried again; the last failure is final
     * @param retryAfter how long it waits before that
     * @param blank what a result without any row means
     */
    public record CheckingDefinition(@Nullable Duration timeLimit, int retries, Duration retryAfter, Blank blank) {
        public static final Duration USUAL_WAIT = Duration.ofMinutes(5);
        public static final CheckingDefinition USUAL = new CheckingDefinition(null, 0, USUAL_WAIT, Blank.QUIET);
    }

    /** What a result without any row means. */
    public enum Blank {
        /** Nothing odd. */
        QUIET,
        /** The owning team hears of it, and the check is good. */
        TELL,
        /** The check has failed. */
        FAIL
    }

    /** How a rule that fires says it. */
    public enum Mode {
        /** Only what is new. */
        INCREMENTAL,
        /** Everything, each time. */
        FULL
    }

    /**
     * @param key the columns of the identity; empty where equal rows are numbered by copy
     * @param watch the columns of the fingerprint; empty for those that the conditions read
     * @param absence null for the default, which depends on whether anything in the rule moves with the slot
     * @param hold how long an exception must last before it is open
     * @param misses how long an open finding must be missed before it clears
     * @param guard how many slots what became better must stay so before that counts; one that comes back within them had not cleared
     * @param remindEvery how long after it was last told an open finding is said again; null for never
     * @param brakes when a check is kept back for a person to look at
     * @param forgetAfter how long a finding is out of sight before it is forgotten; null for the operator's number of days
     */
    public record MemoryDefinition(
            Mode mode,
            List<String> key,
            List<String> watch,
            Set<NewsKind> report,
            @Nullable Absence absence,
            Patience hold,
            Patience misses,
            int guard,
            @Nullable Span remindEvery,
            Brakes brakes,
            FirstCheck firstCheck,
            @Nullable Span forgetAfter) {
        /** The same without patience: what is there is there at once. */
        MemoryDefinition atOnce() {
            return new MemoryDefinition(
                    mode,
                    key,
                    watch,
                    report,
                    absence,
                    Patience.NONE,
                    misses,
                    1,
                    remindEvery,
                    brakes,
                    firstCheck,
                    forgetAfter);
        }
    }

    /**
     * @param mostClearedPercent of the open findings, at one check; null for no limit
     * @param mostOpened findings at one check; null for no limit
     */
    public record Brakes(
            @Nullable Integer mostClearedPercent, @Nullable Integer mostOpened) {
        /** Fewer than so many clear without being counted as a share. */
        public static final int LEAST_CLEARED = 20;

        public static final int USUAL_PERCENT = 50;

        /** Why a check with these counts is kept back; empty if it is not. */
        public Optional<String> keepBack(long openBefore, long cleared, long opened) {
            if (mostClearedPercent != null
                    && cleared >= LEAST_CLEARED
                    && cleared * 100 > openBefore * mostClearedPercent)
                return Optional.of(cleared + " of " + openBefore + " open findings would clear at once, more than "
                        + mostClearedPercent + " %");
            if (mostOpened != null && opened > mostOpened)
                return Optional.of(opened + " findings would open at once, more than " + mostOpened);
            return Optional.empty();
        }
    }

    /**
     * @param start local in the rule's zone
     * @param recur RFC 5545 recurrence rules
     * @param workingDays one slot a month for each: 3 for its third working day, -1 for its last
     * @param also single local times
     * @param except local times left out; {@code exceptDates} whole days
     * @param calendar the name of the one that says which days are worked; null for Monday to Friday
     * @param onHoliday what becomes of a slot on a day that is not worked; null: it stays
     * @param missed what becomes of slots while the service was down; null for the default, which depends on the window
     */
    public record ScheduleDefinition(
            @Nullable LocalDateTime start,
            List<String> recur,
            List<Integer> workingDays,
            List<LocalDateTime> also,
            List<LocalDateTime> except,
            List<LocalDate> exceptDates,
            @Nullable LocalDateTime until,
            @Nullable String calendar,
            @Nullable OnHoliday onHoliday,
            @Nullable Missed missed) {
        public static final ScheduleDefinition ON_DEMAND_ONLY = new ScheduleDefinition(
                null, List.of(), List.of(), List.of(), List.of(), List.of(), null, null, null, null);

        public boolean isOnDemandOnly() {
            return recur.isEmpty() && workingDays.isEmpty() && also.isEmpty();
        }

        /** The same rhythm with a start that is no later: what it would have been had it started before. As it is where its dates are counted. */
        public ScheduleDefinition startingBy(LocalDateTime by, ZoneId zone) {
            boolean counted = recur.stream()
                    .anyMatch(rule -> rule.toUpperCase(Locale.ROOT).contains("COUNT="));
            if (start == null || !start.isAfter(by) || recur.size() > 1 || counted) return this;
            LocalDateTime earlier = recur.isEmpty() ? by : Recurrence.sameRhythmBy(recur.getFirst(), start, by, zone);
            return new ScheduleDefinition(
                    earlier, recur, workingDays, also, except, exceptDates, until, calendar, onHoliday, missed);
        }

        /** @param calendar the one that is named; null where none is */
        public Schedule in(ZoneId zone, @Nullable WorkingDays calendar) {
            if (isOnDemandOnly()) return Schedule.ON_DEMAND_ONLY;
            // Single times need no start.
            LocalDateTime from = start == null ? also.getFirst() : start;
            return Schedule.of(new Schedule.Parts(
                    from, zone, recur, workingDays, also, except, exceptDates, until, calendar, onHoliday));
        }
    }

    /**
     * What starts a check besides the schedule, and what any check waits for.
     *
     * @param events names of outside events; each arrival starts a check
     * @param after rules whose checks start one of this rule, for the same slot
     * @param ready null where a check waits for nothing
     */
    public record OccasionsDefinition(
            List<String> events,
            List<After> after,
            @Nullable ReadyWhen ready) {
        public static final OccasionsDefinition NONE = new OccasionsDefinition(List.of(), List.of(), null);

        public boolean startsChecks() {
            return !events.isEmpty() || !after.isEmpty();
        }
    }

    /** @param on which of that rule's outcomes */
    public record After(String rule, Set<Outcome> on) {
        public static final Set<Outcome> USUAL = Set.of(Outcome.FIRED, Outcome.QUIET);
    }

    /** How a check ended, for a rule that follows it. One that was not judged, kept back or stopped starts nothing. */
    public enum Outcome {
        FIRED,
        QUIET,
        FAILED,
        /** The result had no row at all, whatever else the check was. */
        BLANK
    }

    /**
     * @param query a check may run once it returns a row
     * @param until how long after its slot a check that is not ready has failed
     */
    public record ReadyWhen(String query, Duration askEvery, Duration until) {
        public static final Duration USUAL_ASKING = Duration.ofMinutes(5);
        public static final Duration USUAL_UNTIL = Duration.ofHours(2);
    }

    @Override
    public Kind kind() {
        return Kind.RULE;
    }

    @Override
    public RuleDefinition withId(String newId) {
        return with(new Heading(newId, name, title, owner), parameters, fireWhen, copies, delivery, filing);
    }

    /** The same rule, asked with these values in place of its own. */
    public RuleDefinition withParameters(Map<String, String> others) {
        return with(heading(), others, fireWhen, copies, delivery, filing);
    }

    /** The same for everyone. */
    public RuleDefinition withoutCopies() {
        return with(heading(), parameters, fireWhen, null, delivery, filing);
    }

    /** The same rule in another team's hands. */
    public RuleDefinition ownedBy(String team) {
        return with(new Heading(id, name, title, team), parameters, fireWhen, copies, delivery, filing);
    }

    /** A new rule that says the same under another name, to nobody yet. */
    public RuleDefinition copyAs(String newName, String newTitle) {
        var fresh = new Heading(null, newName, newTitle, owner);
        return with(fresh, parameters, fireWhen, copies, delivery.withoutPeople(), new Filing(filing.labels(), name));
    }

    /** The same rule, told otherwise. */
    public RuleDefinition withDelivery(DeliveryDefinition other) {
        return with(heading(), parameters, fireWhen, copies, other, filing);
    }

    /**
     * The same without patience, to show what it sends though nothing has lasted long enough.
     *
     * @param ofEvery whether every row or group is an exception, since none is just now
     */
    public RuleDefinition asSample(boolean ofEvery) {
        return new RuleDefinition(
                id,
                name,
                title,
                owner,
                query,
                zone,
                parameters,
                groups,
                ofEvery ? null : exceptions,
                severity,
                fireWhen,
                memory.atOnce(),
                schedule,
                occasions,
                checking,
                copies,
                delivery,
                filing);
    }

    /** Which rule it is, and whose. */
    private record Heading(@Nullable String id, String name, String title, String owner) {}

    private Heading heading() {
        return new Heading(id, name, title, owner);
    }

    private RuleDefinition with(
            Heading heading,
            Map<String, String> newParameters,
            @Nullable String newFireWhen,
            @Nullable CopiesDefinition newCopies,
            DeliveryDefinition newDelivery,
            Filing newFiling) {
        return new RuleDefinition(
                heading.id,
                heading.name,
                heading.title,
                heading.owner,
                query,
                zone,
                newParameters,
                groups,
                exceptions,
                severity,
                newFireWhen,
                memory,
                schedule,
                occasions,
                checking,
                newCopies,
                newDelivery,
                newFiling);
    }

    /** The columns of the identity: those of the group where rows are grouped, else the memory's key. */
    public List<String> key() {
        return groups == null ? memory.key() : groups.per();
    }

    /** Checks on the schedule count for holds, misses and history; those of other occasions only where it has no schedule. */
    public boolean isCountedByOccasions() {
        return schedule.isOnDemandOnly() && occasions.startsChecks();
    }

    /** The names of the definitions of a kind that it needs to be there. */
    public Set<String> names(Kind of) {
        var names = new TreeSet<String>();
        switch (of) {
            case QUERY -> {
                names.add(query);
                if (groups != null && groups.from() instanceof ExpectedGroups.OfQuery(var from)) names.add(from);
                if (occasions.ready() != null) names.add(occasions.ready().query());
                if (delivery.split() != null && delivery.split().from() != null)
                    names.add(delivery.split().from());
                if (copies != null) names.add(copies.from());
                delivery.alsoSent().forEach(also -> names.add(also.query()));
            }
            case RULE -> occasions.after().forEach(after -> names.add(after.rule()));
            case THRESHOLD -> names.addAll(thresholdsUsed());
            case CALENDAR -> {
                if (schedule.calendar() != null) names.add(schedule.calendar());
            }
            case LAYOUT -> {
                if (delivery.sharedLayout() != null) names.add(delivery.sharedLayout());
                delivery.alsoSent().stream()
                        .map(DeliveryDefinition.AlsoSent::layout)
                        .filter(Objects::nonNull)
                        .forEach(names::add);
            }
            case ROUND_UP -> {}
        }
        return names;
    }

    /** The names of the thresholds that its measures and conditions use. */
    public Set<String> thresholdsUsed() {
        var texts = new ArrayList<String>();
        if (groups != null) groups.measures().values().forEach(measure -> texts.add(measure.value()));
        if (exceptions != null) texts.add(exceptions);
        severity.stream().map(Band::condition).filter(Objects::nonNull).forEach(texts::add);
        return texts.stream()
                .flatMap(text -> Condition.thresholdsIn(text).stream())
                .collect(Collectors.toCollection(TreeSet::new));
    }
}
