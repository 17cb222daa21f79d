package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.countDistinct;
import static org.jooq.impl.DSL.max;
import static org.jooq.impl.DSL.min;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.notExists;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.service.definitions.Archive;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.layouts.SeverityLook;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jooq.DSLContext;
import org.jooq.Field;
import org.jooq.Records;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** A day over all rules: which checks reported, failed or are late, what is open, and how the mail fares. */
@Component
public class Day {
    private static final int MOST_LANES = 40;
    private static final int MOST_CHECKS = 400;
    private static final int MOST_TO_COME = 100;
    private static final Duration LATE = Duration.ofMinutes(2);
    private static final Set<CheckState> CALM =
            EnumSet.of(CheckState.QUIET, CheckState.RUNNING, CheckState.RESTARTED, CheckState.SKIPPED);

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Layouts layouts;
    private final Schedules schedules;
    private final Clock clock;

    private final Archive archive;
    private final Visibility visibility;
    private final VisibleDefinitions visible;

    Day(
            DSLContext db,
            DefinitionStore definitions,
            Layouts layouts,
            Schedules schedules,
            Archive archive,
            Clock clock,
            VisibleDefinitions visible,
            Visibility visibility) {
        this.visibility = visibility;
        this.visible = visible;
        this.archive = archive;
        this.layouts = layouts;
        this.db = db;
        this.definitions = definitions;
        this.schedules = schedules;
        this.clock = clock;
    }

    /** @param worst the worst that it reported; null where that is not known */
    record DayCheck(
            CheckId id,
            Instant slot,
            CheckState state,
            @Nullable Integer updates,
            @Nullable Severity worst,
            @Nullable String reason) {}

    /**
     * A rule whose checks are shown one by one.
     *
     * @param checks oldest first
     * @param toCome slots until the day's end
     * @param lateSince the slot that should have been checked by now; null where none is late
     * @param pending findings that have not held long enough yet
     */
    record DayLane(
            String rule,
            String title,
            List<DayCheck> checks,
            List<Instant> toCome,
            @Nullable Instant lateSince,
            int pending) {}

    /**
     * @param looks how the rule names and colours the severities of {@code open}
     * @param criticalUnhandled critical ones that nobody has taken, snoozed or accepted
     * @param newToday opened since the day's beginning
     * @param cleared since then
     * @param takenBy the names of those who have taken some, and how many are taken
     * @param lastReported the newest message; null where none was sent
     */
    record DayOpenFindings(
            String rule,
            String title,
            Map<Severity, Integer> open,
            Map<Severity, SeverityLook> looks,
            int criticalUnhandled,
            int newToday,
            int cleared,
            @Nullable Instant oldest,
            int taken,
            List<String> takenBy,
            @Nullable Instant lastReported,
            int lastRecipients) {}

    /**
     * @param outcomes of the checks whose slots lie in the day
     * @param others active rules without a lane, all of them quiet
     * @param sent messages that somebody has got
     * @param queued messages that somebody waits for
     */
    public record DayView(
            Instant from,
            Instant now,
            Instant until,
            Map<CheckState, Integer> outcomes,
            List<DayLane> lanes,
            int moreLanes,
            int others,
            List<DayOpenFindings> open,
            int sent,
            int queued) {}

    /** @param from the start of the day in the user's zone; it ends a day later */
    public DayView of(Instant from, Instant until) {
        Instant now = clock.instant();
        var rules = new HashMap<RuleId, Current<RuleDefinition>>();
        layouts.resolved(visible.rules()).forEach(rule -> rules.put(rule.ruleId(), rule));
        var seen = visibility.now();
        var inDay = RULE_CHECK.SLOT.ge(from).and(RULE_CHECK.SLOT.lt(until)).and(seen.rules(RULE_CHECK.RULE_ID));
        var plain = rules.values().stream()
                .filter(rule -> rule.definition().isPlainReport())
                .map(Current::ruleId)
                .toList();
        // What a plain report sends says nothing of the state of things, and what was retired is nobody's concern.
        var notable = RULE_CHECK
                .STATE
                .ne(CheckState.FIRED)
                .or(RULE_CHECK.RULE_ID.notIn(plain))
                .and(RULE_CHECK.RULE_ID.notIn(archive.rules()));
        var outcomes = db.select(RULE_CHECK.STATE, count())
                .from(RULE_CHECK)
                .where(inDay, notable)
                .groupBy(RULE_CHECK.STATE)
                .fetchMap(RULE_CHECK.STATE, row -> row.value2());
        var late = db.select(RULE.ID, RULE.NEXT_SLOT)
                .from(RULE)
                .where(RULE.STATE.eq(RuleState.ACTIVE), RULE.NEXT_SLOT.lt(now.minus(LATE)))
                .fetchMap(RULE.ID, RULE.NEXT_SLOT);
        var stirred = db.selectDistinct(RULE_CHECK.RULE_ID)
                .from(RULE_CHECK)
                .where(inDay, notable, RULE_CHECK.STATE.notIn(CALM))
                .fetchSet(RULE_CHECK.RULE_ID);
        stirred.addAll(late.keySet());
        stirred.retainAll(rules.keySet());
        var shown = stirred.stream()
                .sorted(Comparator.comparing(
                        id -> Objects.requireNonNull(rules.get(id)).definition().title()))
                .limit(MOST_LANES)
                .toList();
        var lanes = shown.stream()
                .map(id -> lane(Objects.requireNonNull(rules.get(id)), from, until, now, late.get(id)))
                .toList();
        int others = db.fetchCount(
                RULE,
                RULE.STATE.eq(RuleState.ACTIVE),
                RULE.ID.notIn(stirred),
                RULE.ID.notIn(plain),
                seen.rules(RULE.ID));
        return new DayView(
                from,
                now,
                until,
                outcomes,
                lanes,
                stirred.size() - shown.size(),
                others,
                open(rules, from),
                messages(from, Set.of(RecipientState.SENT)),
                messages(null, Set.of(RecipientState.QUEUED, RecipientState.SENDING, RecipientState.UNSURE)));
    }

    private DayLane lane(
            Current<RuleDefinition> rule, Instant from, Instant until, Instant now, @Nullable Instant lateSince) {
        var newest = db.select(
                        RULE_CHECK.ID,
                        RULE_CHECK.SLOT,
                        RULE_CHECK.STATE,
                        RULE_CHECK.UPDATES,
                        RULE_CHECK.WORST_UPDATE,
                        RULE_CHECK.REASON)
                .from(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.eq(rule.ruleId()), RULE_CHECK.SLOT.ge(from), RULE_CHECK.SLOT.lt(until))
                .orderBy(RULE_CHECK.SLOT.desc())
                .limit(MOST_CHECKS)
                .fetch(Records.mapping(DayCheck::new));
        boolean active = db.fetchExists(RULE, RULE.ID.eq(rule.ruleId()), RULE.STATE.eq(RuleState.ACTIVE));
        var toCome = active
                ? schedules.of(rule.definition()).next(MOST_TO_COME, now).stream()
                        .filter(slot -> slot.isBefore(until))
                        .toList()
                : List.<Instant>of();
        int pending = db.fetchCount(FINDING, FINDING.RULE_ID.eq(rule.ruleId()), FINDING.STATE.eq(FindingState.PENDING));
        var definition = rule.definition();
        return new DayLane(definition.name(), definition.title(), newest.reversed(), toCome, lateSince, pending);
    }

    private List<DayOpenFindings> open(Map<RuleId, Current<RuleDefinition>> rules, Instant from) {
        var bySeverity = new HashMap<RuleId, Map<Severity, Integer>>();
        var oldest = new HashMap<RuleId, Instant>();
        var fresh = new HashMap<RuleId, Integer>();
        db.select(FINDING.RULE_ID, FINDING.SEVERITY, count(), min(FINDING.OPENED_AT), newSince(from))
                .from(FINDING)
                .where(FINDING.STATE.eq(FindingState.OPEN))
                .groupBy(FINDING.RULE_ID, FINDING.SEVERITY)
                .forEach(row -> {
                    bySeverity
                            .computeIfAbsent(row.value1(), _ -> new EnumMap<>(Severity.class))
                            .put(row.value2(), row.value3());
                    oldest.merge(row.value1(), row.value4(), (a, b) -> a.isBefore(b) ? a : b);
                    fresh.merge(row.value1(), row.value5(), Integer::sum);
                });
        var cleared = db.select(FINDING.RULE_ID, count())
                .from(FINDING)
                .where(FINDING.STATE.eq(FindingState.CLEARED), FINDING.CHANGED_AT.ge(from))
                .groupBy(FINDING.RULE_ID)
                .fetchMap(FINDING.RULE_ID, row -> row.value2());
        var taken = taken(bySeverity.keySet());
        var told = lastReported(bySeverity.keySet());
        var inNoHands = criticalInNoHands(bySeverity.keySet());
        var open = new ArrayList<DayOpenFindings>();
        bySeverity.forEach((id, counts) -> {
            var rule = rules.get(id);
            if (rule == null) return;
            var who = taken.getOrDefault(id, Map.of());
            var last = told.get(id);
            open.add(new DayOpenFindings(
                    rule.definition().name(),
                    rule.definition().title(),
                    counts,
                    SeverityLook.of(rule.definition(), counts.keySet()),
                    inNoHands.getOrDefault(id, 0),
                    fresh.getOrDefault(id, 0),
                    cleared.getOrDefault(id, 0),
                    oldest.get(id),
                    who.values().stream().mapToInt(Integer::intValue).sum(),
                    List.copyOf(who.keySet()),
                    last == null ? null : last.at(),
                    last == null ? 0 : last.readers()));
        });
        open.sort(worstFirst());
        return open;
    }

    private static Field<Integer> newSince(Instant from) {
        return count().filterWhere(FINDING.OPENED_AT.ge(from));
    }

    private static Comparator<DayOpenFindings> worstFirst() {
        return Comparator.<DayOpenFindings>comparingInt(each -> -each.open().getOrDefault(Severity.CRITICAL, 0))
                .thenComparingInt(each -> -each.open().getOrDefault(Severity.WARNING, 0))
                .thenComparing(DayOpenFindings::title);
    }

    private Map<RuleId, Map<String, Integer>> taken(Set<RuleId> rules) {
        var taken = new HashMap<RuleId, Map<String, Integer>>();
        db.select(FINDING.RULE_ID, PERSON.NAME, count())
                .from(HANDLING)
                .join(FINDING)
                .on(FINDING.ID.eq(HANDLING.FINDING_ID))
                .join(PERSON)
                .on(PERSON.ID.eq(HANDLING.PERSON_ID))
                .where(
                        FINDING.RULE_ID.in(rules),
                        FINDING.STATE.eq(FindingState.OPEN),
                        HANDLING.KIND.eq(Marks.Kind.TAKE),
                        HANDLING.ENDED_AT.isNull())
                .groupBy(FINDING.RULE_ID, PERSON.NAME)
                .orderBy(PERSON.NAME)
                .forEach(row -> taken.computeIfAbsent(row.value1(), _ -> new LinkedHashMap<>())
                        .put(row.value2(), row.value3()));
        return taken;
    }

    private Map<RuleId, Integer> criticalInNoHands(Set<RuleId> rules) {
        return db.select(FINDING.RULE_ID, count())
                .from(FINDING)
                .where(
                        FINDING.RULE_ID.in(rules),
                        FINDING.STATE.eq(FindingState.OPEN),
                        FINDING.SEVERITY.eq(Severity.CRITICAL),
                        notExists(selectOne()
                                .from(HANDLING)
                                .where(HANDLING.FINDING_ID.eq(FINDING.ID), HANDLING.ENDED_AT.isNull())))
                .groupBy(FINDING.RULE_ID)
                .fetchMap(FINDING.RULE_ID, row -> row.value2());
    }

    private record LastReported(Instant at, int readers) {}

    private Map<RuleId, LastReported> lastReported(Set<RuleId> rules) {
        var newest = db.select(MESSAGE.RULE_ID, max(MESSAGE.CREATED_AT).as("at"))
                .from(MESSAGE)
                .where(MESSAGE.RULE_ID.in(rules))
                .groupBy(MESSAGE.RULE_ID)
                .asTable("newest");
        return db.select(MESSAGE.RULE_ID, MESSAGE.CREATED_AT, countDistinct(MESSAGE_RECIPIENT.ADDRESS))
                .from(MESSAGE)
                .join(newest)
                .on(
                        MESSAGE.RULE_ID.eq(newest.field(MESSAGE.RULE_ID)),
                        MESSAGE.CREATED_AT.eq(newest.field("at", Instant.class)))
                .join(MESSAGE_RECIPIENT)
                .on(MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID))
                .groupBy(MESSAGE.RULE_ID, MESSAGE.CREATED_AT)
                .fetchMap(MESSAGE.RULE_ID, row -> new LastReported(row.value2(), row.value3()));
    }

    private int messages(@Nullable Instant since, Set<RecipientState> states) {
        return db.select(countDistinct(MESSAGE_RECIPIENT.MESSAGE_ID))
                .from(MESSAGE_RECIPIENT)
                .join(MESSAGE)
                .on(MESSAGE.ID.eq(MESSAGE_RECIPIENT.MESSAGE_ID))
                .where(
                        MESSAGE_RECIPIENT.STATE.in(states),
                        since == null ? noCondition() : MESSAGE.CREATED_AT.ge(since),
                        visibility.now().messages())
                .fetchSingle()
                .value1();
    }
}
