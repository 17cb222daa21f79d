package dev.oddsentry.core.definition;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.finding.Severity;
import java.time.Duration;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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
 * @param zone where its slots, relative dates and windows are calculated
 * @param parameters values by parameter name, as written
 * @param groups how rows are grouped; null if each row is evaluated
 * @param exceptions the condition over a row or a group; null where every one is an exception
 * @param severity bands, the first that holds counts
 * @param triggers what starts a check besides the schedule, and what it waits for
 * @param limits how a check of it runs
 * @param copies null where one check is for everyone
 * @param fireWhen the condition over the whole check; null for the mode's own
 * @param filing how people find it, and who does
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
        List<SeverityLevel> severity,
        @Nullable String fireWhen,
        MemoryDefinition memory,
        ScheduleDefinition schedule,
        TriggersDefinition triggers,
        LimitsDefinition limits,
        @Nullable CopiesDefinition copies,
        DeliveryDefinition delivery,
        Filing filing)
        implements Definition {

    /**
     * How people find a rule; it has no effect on checks.
     *
     * @param labels in the order written
     * @param copiedFrom the name of the rule that it was copied from; null where it was not
     * @param visibleTo the teams that see it, with its owner; empty where everybody does
     */
    public record Filing(List<String> labels, @Nullable String copiedFrom, List<String> visibleTo) {}

    /** @param condition null in the last level, which applies to every other exception */
    public record SeverityLevel(Severity severity, @Nullable String condition) {}

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

    /** Groups that are evaluated even if they have no rows. */
    public sealed interface ExpectedGroups {
        /** Those that a query returns; it has the rule's {@code per} columns. */
        record OfQuery(String name) implements ExpectedGroups {}

        /** Those that one of the last successful checks found. */
        record OfLastChecks(int checks) implements ExpectedGroups {}
    }

    /**
     * What a check of the rule may cost.
     *
     * @param timeLimit of one check; {@code null} to learn it from earlier checks
     * @param retries the number of times a failed check is tried again
     * @param retryAfter the wait before each retry
     */
    public record LimitsDefinition(@Nullable Duration timeLimit, int retries, Duration retryAfter) {
        public static final Duration USUAL_WAIT = Duration.ofMinutes(5);
        public static final LimitsDefinition USUAL = new LimitsDefinition(null, 0, USUAL_WAIT);
    }

    /** What a rule that fires reports. */
    public enum Mode {
        /** Updates. */
        INCREMENTAL,
        /** All open findings, each time. */
        FULL,
        /** The rows themselves, as a plain report: it has no severities, findings or updates. */
        PLAIN
    }

    /** {@code true} if the rule sends its rows and remembers nothing. */
    public boolean isPlainReport() {
        return memory.mode() == Mode.PLAIN;
    }

    @Override
    public Kind kind() {
        return Kind.RULE;
    }

    @Override
    public List<String> visibleTo() {
        return filing.visibleTo();
    }

    @Override
    public RuleDefinition withId(String newId) {
        return with(new Heading(newId, name, title, owner), parameters, fireWhen, copies, delivery, filing);
    }

    /** The same rule with these values for parameters. */
    public RuleDefinition withParameters(Map<String, String> others) {
        return with(heading(), others, fireWhen, copies, delivery, filing);
    }

    /** The same rule without personal copies. */
    public RuleDefinition withoutCopies() {
        return with(heading(), parameters, fireWhen, null, delivery, filing);
    }

    /** The same rule, owned by another team. */
    public RuleDefinition ownedBy(String team) {
        return with(new Heading(id, name, title, team), parameters, fireWhen, copies, delivery, filing);
    }

    /** A copy with another name and without recipients. */
    public RuleDefinition copyAs(String newName, String newTitle) {
        var fresh = new Heading(null, newName, newTitle, owner);
        return with(
                fresh,
                parameters,
                fireWhen,
                copies,
                delivery.withoutPeople(),
                new Filing(filing.labels(), name, filing.visibleTo()));
    }

    /** The same rule with another delivery. */
    public RuleDefinition withDelivery(DeliveryDefinition other) {
        return with(heading(), parameters, fireWhen, copies, other, filing);
    }

    /** The same rule with another condition. */
    public RuleDefinition withExceptions(@Nullable String condition) {
        return with(condition, memory);
    }

    /** The same rule with another memory. */
    public RuleDefinition withMemory(MemoryDefinition other) {
        return with(exceptions, other);
    }

    private RuleDefinition with(@Nullable String condition, MemoryDefinition remembered) {
        return new RuleDefinition(
                id,
                name,
                title,
                owner,
                query,
                zone,
                parameters,
                groups,
                condition,
                severity,
                fireWhen,
                remembered,
                schedule,
                triggers,
                limits,
                copies,
                delivery,
                filing);
    }

    /**
     * The same without minimum durations, to show what it would send.
     *
     * @param ofEvery whether every row or group is an exception, for a rule that finds none now
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
                memory.withoutMinimumDurations(),
                schedule,
                triggers,
                limits,
                copies,
                delivery,
                filing);
    }

    /** What identifies a rule, and its owner. */
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
                triggers,
                limits,
                newCopies,
                newDelivery,
                newFiling);
    }

    /** The columns that identify a finding: those of the group if rows are grouped, else the key columns. */
    public List<String> key() {
        return groups == null ? memory.key() : groups.per();
    }

    /** Checks on the schedule count for holds, misses and history; those of other triggers only where it has no schedule. */
    public boolean isCountedByTriggers() {
        return schedule.isOnDemandOnly() && triggers.startsChecks();
    }

    /** The names of the definitions of a kind that it needs to be there. */
    public Set<String> names(Kind of) {
        var names = new TreeSet<String>();
        switch (of) {
            case QUERY -> {
                names.add(query);
                if (groups != null && groups.from() instanceof ExpectedGroups.OfQuery(var from)) names.add(from);
                if (triggers.ready() != null) names.add(triggers.ready().query());
                if (delivery.split() != null && delivery.split().from() != null)
                    names.add(delivery.split().from());
                if (copies != null) names.add(copies.from());
                delivery.alsoSent().forEach(also -> names.add(also.query()));
            }
            case RULE -> triggers.after().forEach(after -> names.add(after.rule()));
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
            case RECIPIENT_LIST -> names.addAll(MailAddress.lists(delivery.mentioned()));
            case ROUND_UP -> {}
        }
        return names;
    }

    /** The names of the thresholds that its measures and conditions use. */
    public Set<String> thresholdsUsed() {
        var texts = new ArrayList<String>();
        if (groups != null) groups.measures().values().forEach(measure -> texts.add(measure.value()));
        if (exceptions != null) texts.add(exceptions);
        severity.stream().map(SeverityLevel::condition).filter(Objects::nonNull).forEach(texts::add);
        return texts.stream()
                .flatMap(text -> Condition.thresholdsIn(text).stream())
                .collect(Collectors.toCollection(TreeSet::new));
    }
}
