package dev.oddsentry.service.handling;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.FINDING_EVENT;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static dev.oddsentry.service.db.generated.Tables.PERSON;

import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks.Kind;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.FindingEventKind;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Sets and withdraws marks. A mark of a kind that stands already is replaced, and what stood is kept as ended. */
@Component
public class FindingHandling {
    private final DSLContext db;
    private final Clock clock;

    FindingHandling(DSLContext db, Clock clock) {
        this.db = db;
        this.clock = clock;
    }

    /** @param until null for as long as the finding lasts */
    public record Ask(Kind kind, String note, @Nullable Instant until) {}

    /** A mark that stands. */
    public record HandlingEntry(
            Kind kind,
            String by,
            Instant at,
            String note,
            @Nullable Instant until) {}

    /** @throws RefusedException if the finding is over, or the mark makes no sense */
    @Transactional
    public void mark(Person by, RuleId ruleId, long findingId, Ask ask) {
        var finding = lock(ruleId, findingId);
        Instant now = clock.instant();
        if (finding.getState() == FindingState.CLEARED)
            throw RefusedException.conflict("The finding has cleared; it cannot be used with "
                    + ask.kind().code() + ".");
        refuseSenseless(ask.kind(), ask.note(), ask.until(), now);
        end(by, findingId, ask.kind(), now);
        insert(by, finding, ask, now);
        record(by, finding, FindingEventKind.set(ask.kind()), ask.note(), now);
    }

    private void insert(Person by, FindingRecord finding, Ask ask, Instant now) {
        db.insertInto(HANDLING)
                .set(HANDLING.FINDING_ID, finding.getId())
                .set(HANDLING.KIND, ask.kind())
                .set(HANDLING.PERSON_ID, by.id())
                .set(HANDLING.AT, now)
                .set(HANDLING.NOTE, ask.note())
                .set(HANDLING.SEVERITY, finding.getSeverity())
                .set(HANDLING.UNTIL, ask.until())
                .execute();
    }

    static void refuseSenseless(Kind kind, String note, @Nullable Instant until, Instant now) {
        if (kind == Kind.SNOOZE && until == null) throw RefusedException.invalid("A snooze needs an end date.");
        if (until != null && !until.isAfter(now))
            throw RefusedException.invalid("\"until\" lies in the past: " + until + ".");
        if (kind == Kind.ACCEPT && note.isBlank())
            throw RefusedException.invalid("A note is required when you accept a finding.");
    }

    static void refuseEmpty(String note) {
        if (note.isBlank()) throw RefusedException.invalid("The note is empty.");
    }

    /** @throws RefusedException if there is no such mark */
    @Transactional
    public void withdraw(Person by, RuleId ruleId, long findingId, Kind kind) {
        var finding = lock(ruleId, findingId);
        Instant now = clock.instant();
        if (end(by, findingId, kind, now) == 0)
            throw RefusedException.conflict("The finding is not " + word(kind) + ".");
        record(by, finding, FindingEventKind.withdrawn(kind), null, now);
    }

    /** Notes what a person knows of a finding or did about it, also once it is over. @throws RefusedException if there is nothing in it */
    @Transactional
    public void note(Person by, RuleId ruleId, long findingId, String note) {
        refuseEmpty(note);
        record(by, lock(ruleId, findingId), FindingEventKind.NOTED, note.strip(), clock.instant());
    }

    private FindingRecord lock(RuleId ruleId, long findingId) {
        return db.selectFrom(FINDING)
                .where(FINDING.ID.eq(findingId), FINDING.RULE_ID.eq(ruleId))
                .forUpdate()
                .fetchOptional()
                .orElseThrow(() -> RefusedException.notFound("The rule has no finding " + findingId + "."));
    }

    private int end(Person by, long findingId, Kind kind, Instant now) {
        return db.update(HANDLING)
                .set(HANDLING.ENDED_AT, now)
                .set(HANDLING.ENDED_BY, by.id())
                .where(HANDLING.FINDING_ID.eq(findingId), HANDLING.KIND.eq(kind), HANDLING.ENDED_AT.isNull())
                .execute();
    }

    private void record(Person by, FindingRecord finding, FindingEventKind kind, @Nullable String note, Instant now) {
        db.insertInto(FINDING_EVENT)
                .set(FINDING_EVENT.FINDING_ID, finding.getId())
                .set(FINDING_EVENT.KIND, kind)
                .set(FINDING_EVENT.SEVERITY, finding.getSeverity())
                .set(FINDING_EVENT.AT, now)
                .set(FINDING_EVENT.PERSON_ID, by.id())
                .set(FINDING_EVENT.NOTE, note == null || note.isBlank() ? null : note)
                .execute();
    }

    /** Of rows of {@code HANDLING} joined with their findings: what the person has taken and that is not over. */
    public static Condition isTakenBy(Person person) {
        return HANDLING.PERSON_ID
                .eq(person.id())
                .and(HANDLING.KIND.eq(Kind.TAKE))
                .and(HANDLING.ENDED_AT.isNull())
                .and(FINDING.STATE.ne(FindingState.CLEARED));
    }

    /**
     * Somebody else has taken what this person had. Part of the caller's transaction.
     *
     * @return how many findings
     */
    public int handOver(Person by, Person from, Person to) {
        Instant now = clock.instant();
        var findings = db.select(FINDING.fields())
                .from(HANDLING)
                .join(FINDING)
                .on(FINDING.ID.eq(HANDLING.FINDING_ID))
                .where(isTakenBy(from))
                .orderBy(FINDING.ID)
                .forUpdate()
                .fetchInto(FINDING);
        for (var finding : findings) {
            end(by, finding.getId(), Kind.TAKE, now);
            take(to, finding, "handed over from " + from.name() + " by " + by.name(), now);
        }
        return findings.size();
    }

    private void take(Person person, FindingRecord finding, String note, Instant now) {
        insert(person, finding, new Ask(Kind.TAKE, note, null), now);
        record(person, finding, FindingEventKind.TAKEN, note, now);
    }

    static String word(Kind kind) {
        return switch (kind) {
            case TAKE -> "taken";
            case SNOOZE -> "snoozed";
            case ACCEPT -> "accepted";
        };
    }

    /** The marks that stand, by finding. */
    public Map<Long, List<HandlingEntry>> of(Collection<Long> findings) {
        return db.select(HANDLING.FINDING_ID, HANDLING.KIND, PERSON.NAME, HANDLING.AT, HANDLING.NOTE, HANDLING.UNTIL)
                .from(HANDLING)
                .join(PERSON)
                .on(PERSON.ID.eq(HANDLING.PERSON_ID))
                .where(HANDLING.FINDING_ID.in(findings), HANDLING.ENDED_AT.isNull())
                .orderBy(HANDLING.ID)
                .fetchGroups(
                        HANDLING.FINDING_ID,
                        row -> new HandlingEntry(row.value2(), row.value3(), row.value4(), row.value5(), row.value6()));
    }
}
