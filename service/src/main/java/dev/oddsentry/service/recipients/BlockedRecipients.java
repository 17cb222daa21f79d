package dev.oddsentry.service.recipients;

import static dev.oddsentry.service.db.generated.Tables.BAD_ADDRESS;
import static dev.oddsentry.service.db.generated.Tables.LEAVER;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static org.jooq.Records.mapping;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Says to whom nothing goes, and why. Addresses are compared without regard to case. */
@Component
public class BlockedRecipients {
    private final DSLContext db;
    private final Clock clock;
    private final Audit audit;

    BlockedRecipients(DSLContext db, Clock clock, Audit audit) {
        this.db = db;
        this.clock = clock;
        this.audit = audit;
    }

    /** @param left whether the reader wanted it so; otherwise mail comes back from there */
    public record Barred(boolean left, String words) {}

    /** @param resubscribedAt null as long as they are gone */
    public record UnsubscribedRecipient(
            String address,
            Instant unsubscribedAt,
            UUID message,
            @Nullable Instant resubscribedAt,
            @Nullable String resubscribedBy) {}

    public record BlockedAddress(String address, String reason, UUID message, Instant since) {}

    /** By address, in lower case. @param definition a rule or a round-up; null where only bad addresses count */
    public Map<String, Barred> barred(@Nullable UUID definition) {
        var barred = new LinkedHashMap<String, Barred>();
        for (var bad : badAddresses())
            barred.put(
                    bad.address(),
                    new Barred(false, "Blocked since " + bad.since() + ", when a message bounced: " + bad.reason()));
        if (definition == null) return barred;
        db.selectFrom(LEAVER)
                .where(LEAVER.DEFINITION_ID.eq(definition), LEAVER.RETURNED_AT.isNull())
                .forEach(each -> barred.put(
                        each.getAddress(), new Barred(true, "The recipient unsubscribed on " + each.getLeftAt())));
        return barred;
    }

    public List<BlockedAddress> badAddresses() {
        return db.select(BAD_ADDRESS.ADDRESS, BAD_ADDRESS.WORDS, BAD_ADDRESS.MESSAGE_ID, BAD_ADDRESS.SINCE)
                .from(BAD_ADDRESS)
                .where(BAD_ADDRESS.ENDED_AT.isNull())
                .orderBy(BAD_ADDRESS.ADDRESS)
                .fetch(mapping(BlockedAddress::new));
    }

    /** Part of the caller's transaction. @return false if it is held as bad already */
    public boolean hold(String address, String words, UUID message) {
        return db.insertInto(BAD_ADDRESS)
                        .set(BAD_ADDRESS.ADDRESS, lower(address))
                        .set(BAD_ADDRESS.WORDS, words)
                        .set(BAD_ADDRESS.MESSAGE_ID, message)
                        .set(BAD_ADDRESS.SINCE, clock.instant())
                        .onConflictDoNothing()
                        .execute()
                == 1;
    }

    /** It is right again: mail goes there from now on. */
    @Transactional
    public void release(Person by, String address) {
        int ended = db.update(BAD_ADDRESS)
                .set(BAD_ADDRESS.ENDED_AT, clock.instant())
                .set(BAD_ADDRESS.ENDED_BY, by.id())
                .where(BAD_ADDRESS.ADDRESS.eq(lower(address)), BAD_ADDRESS.ENDED_AT.isNull())
                .execute();
        if (ended == 0) throw RefusedException.notFound("The address " + address + " is not blocked.");
        audit.record(db, by.id(), "unblock address", address, null);
    }

    /** Latest first. */
    public List<UnsubscribedRecipient> leavers(UUID definition) {
        return db.select(LEAVER.ADDRESS, LEAVER.LEFT_AT, LEAVER.MESSAGE_ID, LEAVER.RETURNED_AT, PERSON.NAME)
                .from(LEAVER)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(LEAVER.RETURNED_BY))
                .where(LEAVER.DEFINITION_ID.eq(definition))
                .orderBy(LEAVER.LEFT_AT.desc(), LEAVER.ADDRESS)
                .fetch(mapping(UnsubscribedRecipient::new));
    }

    public boolean hasLeft(UUID definition, String address) {
        return db.fetchExists(LEAVER, gone(definition, address));
    }

    /** A recipient who has unsubscribed stays unsubscribed. */
    @Transactional
    public void leave(UUID definition, String address, UUID message) {
        db.insertInto(LEAVER)
                .set(LEAVER.DEFINITION_ID, definition)
                .set(LEAVER.ADDRESS, lower(address))
                .set(LEAVER.MESSAGE_ID, message)
                .set(LEAVER.LEFT_AT, clock.instant())
                .onConflictDoNothing()
                .execute();
    }

    /** @param by null where the reader comes back by the link @return false if they were not gone */
    @Transactional
    public boolean comeBack(UUID definition, String address, @Nullable Person by) {
        if (by != null) audit.record(db, by.id(), "resubscribe a recipient", String.valueOf(definition), address);
        return db.update(LEAVER)
                        .set(LEAVER.RETURNED_AT, clock.instant())
                        .set(LEAVER.RETURNED_BY, by == null ? null : by.id())
                        .where(gone(definition, address))
                        .execute()
                == 1;
    }

    private static Condition gone(UUID definition, String address) {
        return LEAVER.DEFINITION_ID
                .eq(definition)
                .and(LEAVER.ADDRESS.eq(lower(address)))
                .and(LEAVER.RETURNED_AT.isNull());
    }

    private static String lower(String address) {
        return address.toLowerCase(Locale.ROOT);
    }
}
