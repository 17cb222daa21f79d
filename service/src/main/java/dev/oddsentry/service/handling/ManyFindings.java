package dev.oddsentry.service.handling;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static org.jooq.impl.DSL.any;

import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks.Kind;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.FindingEventKind;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.visibility.Visibility;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Handles many findings at once: all of them that can be, in one transaction. */
@Component
public class ManyFindings {
    private final DSLContext db;
    private final Visibility visibility;
    private final Clock clock;

    ManyFindings(DSLContext db, Clock clock, Visibility visibility) {
        this.visibility = visibility;
        this.db = db;
        this.clock = clock;
    }

    /**
     * @param handled how many findings it was done to
     * @param cleared how many have cleared, so that only a note can be added
     * @param unchanged how many are not handled in that way, so that there is nothing to undo
     * @param missing how many are not there any more
     */
    public record ManyHandled(int handled, int cleared, int unchanged, int missing) {}

    /**
     * @param until by rule, since a date is one in the zone of the rule; null for as long as the finding lasts
     * @throws dev.oddsentry.service.web.RefusedException if it makes no sense for any finding
     */
    @Transactional
    public ManyHandled mark(
            Person by, Collection<Long> ids, Kind kind, String note, Function<RuleId, @Nullable Instant> until) {
        Instant now = clock.instant();
        var found = lock(ids);
        var open = open(found);
        for (var rule : rules(open)) FindingHandling.refuseSenseless(kind, note, until.apply(rule), now);
        end(by, open, kind, now);
        db.batchInsert(open.stream()
                        .map(finding -> {
                            var entry = db.newRecord(HANDLING);
                            entry.setFindingId(finding.getId());
                            entry.setKind(kind);
                            entry.setPersonId(by.id());
                            entry.setAt(now);
                            entry.setNote(note);
                            entry.setSeverity(finding.getSeverity());
                            entry.setUntil(until.apply(finding.getRuleId()));
                            return entry;
                        })
                        .toList())
                .execute();
        record(by, open, FindingEventKind.set(kind), note, now);
        return new ManyHandled(open.size(), found.size() - open.size(), 0, ids.size() - found.size());
    }

    @Transactional
    public ManyHandled withdraw(Person by, Collection<Long> ids, Kind kind) {
        Instant now = clock.instant();
        var found = lock(ids);
        var ended = end(by, found, kind, now);
        var changed = found.stream()
                .filter(finding -> ended.contains(finding.getId()))
                .toList();
        record(by, changed, FindingEventKind.withdrawn(kind), null, now);
        return new ManyHandled(changed.size(), 0, found.size() - changed.size(), ids.size() - found.size());
    }

    /** Also for those that have cleared. */
    @Transactional
    public ManyHandled note(Person by, Collection<Long> ids, String note) {
        FindingHandling.refuseEmpty(note);
        var found = lock(ids);
        record(by, found, FindingEventKind.NOTED, note.strip(), clock.instant());
        return new ManyHandled(found.size(), 0, 0, ids.size() - found.size());
    }

    /** In the order of their numbers, so that two people who handle the same findings wait for each other. */
    private List<FindingRecord> lock(Collection<Long> ids) {
        return db.selectFrom(FINDING)
                .where(
                        FINDING.ID.eq(any(ids.toArray(Long[]::new))),
                        visibility.now().rules(FINDING.RULE_ID))
                .orderBy(FINDING.ID)
                .forUpdate()
                .fetch();
    }

    private static List<FindingRecord> open(List<FindingRecord> findings) {
        return findings.stream()
                .filter(finding -> finding.getState() != FindingState.CLEARED)
                .toList();
    }

    private static Set<RuleId> rules(List<FindingRecord> findings) {
        var rules = new HashSet<RuleId>();
        findings.forEach(finding -> rules.add(finding.getRuleId()));
        return rules;
    }

    private Set<Long> end(Person by, List<FindingRecord> findings, Kind kind, Instant now) {
        var ids = findings.stream().map(FindingRecord::getId).toArray(Long[]::new);
        return new HashSet<>(db.update(HANDLING)
                .set(HANDLING.ENDED_AT, now)
                .set(HANDLING.ENDED_BY, by.id())
                .where(HANDLING.FINDING_ID.eq(any(ids)), HANDLING.KIND.eq(kind), HANDLING.ENDED_AT.isNull())
                .returning(HANDLING.FINDING_ID)
                .fetch(HANDLING.FINDING_ID));
    }

    private void record(
            Person by, List<FindingRecord> findings, FindingEventKind kind, @Nullable String note, Instant now) {
        db.batchInsert(findings.stream()
                        .map(finding -> {
                            var event = db.newRecord(FINDING_EVENT);
                            event.setFindingId(finding.getId());
                            event.setKind(kind);
                            event.setSeverity(finding.getSeverity());
                            event.setAt(now);
                            event.setPersonId(by.id());
                            event.setNote(note == null || note.isBlank() ? null : note);
                            return event;
                        })
                        .toList())
                .execute();
    }
}
