package dev.oddsentry.service.recipients;

import static dev.oddsentry.service.db.generated.Tables.READER_CHOICE;
import static org.jooq.impl.DSL.falseCondition;

import dev.oddsentry.core.definition.ReaderChoice;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.db.generated.tables.records.ReaderChoiceRecord;
import dev.oddsentry.service.people.Person;
import java.time.Clock;
import java.time.DayOfWeek;
import java.time.Instant;
import java.time.ZoneId;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What recipients chose of the messages of a rule or a round-up. Addresses are compared without regard to case. */
@Component
public class ReaderChoices {
    private final DSLContext db;
    private final Clock clock;
    private final Audit audit;

    ReaderChoices(DSLContext db, Clock clock, Audit audit) {
        this.audit = audit;
        this.db = db;
        this.clock = clock;
    }

    /** What a recipient asks for. */
    public sealed interface Wish {
        record EachMessage() implements Wish {}

        record Collected(CollectionTime time) implements Wish {}

        /** Nothing before {@code until}. */
        record Paused(Instant until) implements Wish {}
    }

    /**
     * @param definition a rule or a round-up
     * @param pausedUntil null where it is not paused
     * @param time null where each message is sent on its own
     */
    public record Chosen(
            UUID definition,
            String address,
            @Nullable Instant pausedUntil,
            @Nullable CollectionTime time,
            boolean filesByLink,
            @Nullable Instant nextCollection,
            Instant chosenAt) {
        /** Whether anything differs from what others get. */
        boolean isAnything() {
            return pausedUntil != null || time != null || filesByLink;
        }
    }

    /** By address. */
    public List<Chosen> of(UUID definition) {
        return chosen(READER_CHOICE.DEFINITION_ID.eq(definition));
    }

    public Optional<Chosen> of(UUID definition, String address) {
        return chosen(READER_CHOICE.DEFINITION_ID.eq(definition).and(READER_CHOICE.ADDRESS.eq(small(address)))).stream()
                .findFirst();
    }

    private List<Chosen> chosen(Condition which) {
        return db
                .selectFrom(READER_CHOICE)
                .where(which)
                .orderBy(READER_CHOICE.ADDRESS, READER_CHOICE.DEFINITION_ID)
                .fetch(each -> new Chosen(
                        each.getDefinitionId(),
                        each.getAddress(),
                        each.getPausedUntil(),
                        time(each),
                        each.getFilesByLink(),
                        each.getNextCollection(),
                        each.getChosenAt()))
                .stream()
                .filter(Chosen::isAnything)
                .toList();
    }

    public static @Nullable CollectionTime time(ReaderChoiceRecord row) {
        if (row.getCollect() == null) return null;
        return new CollectionTime(
                row.getCollect(),
                row.getCollectHour(),
                row.getCollectDay() == null ? null : DayOfWeek.of(row.getCollectDay()));
    }

    /**
     * Those whose messages are kept back for a collection, in lower case; who wants each message again has to get first what was kept. They cannot change it
     * before the caller's transaction ends, so that nothing is kept back for a collection that has just been sent.
     *
     * @param allowed what the definition lets them choose
     */
    public Set<String> kept(UUID definition, Collection<ReaderChoice> allowed) {
        var paused = READER_CHOICE.PAUSED_UNTIL.isNotNull();
        var collected = READER_CHOICE.COLLECT.isNotNull();
        var ending = READER_CHOICE.NEXT_COLLECTION.isNotNull().andNot(paused).andNot(collected);
        return db.select(READER_CHOICE.ADDRESS)
                .from(READER_CHOICE)
                .where(
                        READER_CHOICE.DEFINITION_ID.eq(definition),
                        ending.or(allowed.contains(ReaderChoice.PAUSE) ? paused : falseCondition())
                                .or(allowed.contains(ReaderChoice.COLLECT) ? collected : falseCondition()))
                .forShare()
                .fetchSet(READER_CHOICE.ADDRESS);
    }

    /** Those who want their files behind the link to the report, in lower case. */
    public Set<String> byLink(UUID definition, Collection<ReaderChoice> allowed) {
        if (!allowed.contains(ReaderChoice.LINK)) return Set.of();
        return db.select(READER_CHOICE.ADDRESS)
                .from(READER_CHOICE)
                .where(READER_CHOICE.DEFINITION_ID.eq(definition), READER_CHOICE.FILES_BY_LINK.isTrue())
                .fetchSet(READER_CHOICE.ADDRESS);
    }

    /** What waits for a recipient who wants each message again is sent at once; of one who pauses, when the pause ends. */
    @Transactional
    public void choose(UUID definition, String address, Wish wish, boolean filesByLink, ZoneId zone) {
        Instant now = clock.instant();
        var time = wish instanceof Wish.Collected(var collected) ? collected : null;
        var until = wish instanceof Wish.Paused(var paused) ? paused : null;
        var row = db.selectFrom(READER_CHOICE)
                .where(READER_CHOICE.DEFINITION_ID.eq(definition), READER_CHOICE.ADDRESS.eq(small(address)))
                .forUpdate()
                .fetchOptional()
                .orElseGet(() -> db.newRecord(READER_CHOICE));
        boolean keptSome = row.getNextCollection() != null;
        row.setDefinitionId(definition);
        row.setAddress(small(address));
        row.setPausedUntil(until);
        // A pause ends as it began: with the collections that were chosen before.
        if (until == null) set(row, time);
        row.setFilesByLink(filesByLink);
        row.setNextCollection(until != null ? until : time != null ? time.after(now, zone) : keptSome ? now : null);
        row.setChosenAt(now);
        row.store();
    }

    private static void set(ReaderChoiceRecord row, @Nullable CollectionTime time) {
        row.setCollect(time == null ? null : time.every());
        row.setCollectHour(time == null ? null : (short) time.hour());
        row.setCollectDay(
                time == null || time.day() == null ? null : (short) time.day().getValue());
    }

    /** The owner has the recipient mailed as everybody else again. @return false where there was no choice */
    @Transactional
    public boolean end(Person by, UUID definition, String name, String address) {
        boolean ended = db.update(READER_CHOICE)
                        .setNull(READER_CHOICE.PAUSED_UNTIL)
                        .setNull(READER_CHOICE.COLLECT)
                        .setNull(READER_CHOICE.COLLECT_DAY)
                        .setNull(READER_CHOICE.COLLECT_HOUR)
                        .set(READER_CHOICE.FILES_BY_LINK, false)
                        .set(READER_CHOICE.NEXT_COLLECTION, clock.instant())
                        .where(READER_CHOICE.DEFINITION_ID.eq(definition), READER_CHOICE.ADDRESS.eq(small(address)))
                        .execute()
                == 1;
        if (ended) audit.record(db, by.id(), AuditAct.END_READER_CHOICE, name, address);
        return ended;
    }

    private static String small(String address) {
        return address.strip().toLowerCase(Locale.ROOT);
    }
}
