package dev.oddsentry.core.definition;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.schedule.Recurrence;
import dev.oddsentry.core.schedule.Schedule;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What watches one query.
 *
 * @param id stable over renames, so that memory outlives them; null in a document that was never saved
 * @param owner the team it belongs to
 * @param query the name of the query it watches
 * @param zone where its slots, relative dates and windows are reckoned
 * @param parameters values by parameter name, as written
 * @param exceptions the row condition; null where every row is an exception
 * @param severity bands, the first that holds counts
 */
public record RuleDefinition(
        @Nullable String id,
        String name,
        String title,
        String owner,
        String query,
        ZoneId zone,
        Map<String, String> parameters,
        @Nullable String exceptions,
        List<Band> severity,
        MemoryDefinition memory,
        ScheduleDefinition schedule,
        DeliveryDefinition delivery)
        implements Definition {

    /** @param condition null in the last band, which every other exception gets */
    public record Band(Severity severity, @Nullable String condition) {}

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
     */
    public record MemoryDefinition(
            Mode mode,
            List<String> key,
            List<String> watch,
            Set<NewsKind> report,
            @Nullable Absence absence,
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
                newId, name, title, owner, query, zone, parameters, exceptions, severity, memory, schedule, delivery);
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
