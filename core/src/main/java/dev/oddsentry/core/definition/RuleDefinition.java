package dev.oddsentry.core.definition;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.schedule.Recurrence;
import dev.oddsentry.core.schedule.Schedule;
import java.time.LocalDateTime;
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
 * @param zone where its slots, relative dates and windows are reckoned
 * @param parameters values by parameter name, as written
 * @param groups how rows are put together before they are judged; null where each row is judged
 * @param exceptions the condition over a row or a group; null where every one is an exception
 * @param severity bands, the first that holds counts
 * @param fireWhen the condition over the whole check; null for the mode's own
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
        DeliveryDefinition delivery)
        implements Definition {

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
     */
    public record MemoryDefinition(
            Mode mode,
            List<String> key,
            List<String> watch,
            Set<NewsKind> report,
            @Nullable Absence absence,
            Patience hold,
            Patience misses,
            FirstCheck firstCheck) {}

    /**
     * @param start local in the rule's zone
     * @param recur RFC 5545 recurrence rules; empty for a rule that is checked on demand only
     */
    public record ScheduleDefinition(
            @Nullable LocalDateTime start,
            List<String> recur,
            @Nullable LocalDateTime until) {}

    /**
     * @param columns those shown, in order; empty for all
     * @param attachCsv whether all open findings are attached
     */
    public record DeliveryDefinition(List<String> to, List<String> columns, boolean attachCsv) {}

    @Override
    public Kind kind() {
        return Kind.RULE;
    }

    @Override
    public RuleDefinition withId(String newId) {
        return new RuleDefinition(
                newId,
                name,
                title,
                owner,
                query,
                zone,
                parameters,
                groups,
                exceptions,
                severity,
                fireWhen,
                memory,
                schedule,
                delivery);
    }

    /** The columns of the identity: those of the group where rows are grouped, else the memory's key. */
    public List<String> key() {
        return groups == null ? memory.key() : groups.per();
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

    /** The schedule as it can be reckoned with; it was checked when this was read. */
    public Schedule scheduleInZone() {
        if (schedule.start() == null || schedule.recur().isEmpty()) return Schedule.ON_DEMAND_ONLY;
        LocalDateTime start = schedule.start();
        LocalDateTime until = schedule.until();
        return new Schedule(
                schedule.recur().stream()
                        .map(rule -> Recurrence.of(rule, start, zone))
                        .toList(),
                until == null ? null : until.atZone(zone).toInstant());
    }
}
