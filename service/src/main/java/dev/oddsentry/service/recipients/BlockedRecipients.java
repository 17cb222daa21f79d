package dev.oddsentry.service.recipients;

import static dev.oddsentry.service.db.generated.Tables.BLOCKED_ADDRESS;
import static dev.oddsentry.service.db.generated.Tables.PERSON;
import static dev.oddsentry.service.db.generated.Tables.UNSUBSCRIPTION;
import static org.jooq.Records.mapping;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.ids.MessageId;
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

    /** @param left whether the recipient unsubscribed; otherwise the address is blocked */
    public record Barred(boolean left, String words) {}

    /** @param resubscribedAt null as long as they are gone */
    public record UnsubscribedRecipient(
            String address,
            Instant unsubscribedAt,
            MessageId message,
            @Nullable Instant resubscribedAt,
            @Nullable String resubscribedBy) {}

    public record BlockedAddress(String address, String reason, MessageId message, Instant since) {}

    /** By address, in lower case. @param definition a rule or a round-up; null where only bad addresses count */
    public Map<String, Barred> barred(@Nullable UUID definition) {
        var barred = new LinkedHashMap<String, Barred>();
        for (var bad : badAddresses())
            barred.put(
                    bad.address(),
                    new Barred(false, "Blocked since " + bad.since() + ", when a message bounced: " + bad.reason()));
        if (definition == null) return barred;
        db.selectFrom(UNSUBSCRIPTION)
                .where(UNSUBSCRIPTION.DEFINITION_ID.eq(definition), UNSUBSCRIPTION.RESUBSCRIBED_AT.isNull())
                .forEach(each -> barred.put(
                        each.getAddress(),
                        new Barred(true, "The recipient unsubscribed on " + each.getUnsubscribedAt())));
        return barred;
    }

    public List<BlockedAddress> badAddresses() {
        return db.select(
                        BLOCKED_ADDRESS.ADDRESS,
                        BLOCKED_ADDRESS.RESPONSE,
                        BLOCKED_ADDRESS.MESSAGE_ID,
                        BLOCKED_ADDRESS.SINCE)
                .from(BLOCKED_ADDRESS)
                .where(BLOCKED_ADDRESS.ENDED_AT.isNull())
                .orderBy(BLOCKED_ADDRESS.ADDRESS)
                .fetch(mapping(BlockedAddress::new));
    }

    /** Part of the caller's transaction. @return false if it is held as bad already */
    public boolean hold(String address, String words, MessageId message) {
        return db.insertInto(BLOCKED_ADDRESS)
                        .set(BLOCKED_ADDRESS.ADDRESS, lower(address))
                        .set(BLOCKED_ADDRESS.RESPONSE, words)
                        .set(BLOCKED_ADDRESS.MESSAGE_ID, message)
                        .set(BLOCKED_ADDRESS.SINCE, clock.instant())
                        .onConflictDoNothing()
                        .execute()
                == 1;
    }

    /** It is right again: mail goes there from now on. */
    @Transactional
    public void release(Person by, String address) {
        int ended = db.update(BLOCKED_ADDRESS)
                .set(BLOCKED_ADDRESS.ENDED_AT, clock.instant())
                .set(BLOCKED_ADDRESS.ENDED_BY, by.id())
                .where(BLOCKED_ADDRESS.ADDRESS.eq(lower(address)), BLOCKED_ADDRESS.ENDED_AT.isNull())
                .execute();
        if (ended == 0) throw RefusedException.notFound("The address " + address + " is not blocked.");
        audit.record(db, by.id(), AuditAct.UNBLOCK_ADDRESS, address, null);
    }

    /** Latest first. */
    public List<UnsubscribedRecipient> leavers(UUID definition) {
        return db.select(
                        UNSUBSCRIPTION.ADDRESS,
                        UNSUBSCRIPTION.UNSUBSCRIBED_AT,
                        UNSUBSCRIPTION.MESSAGE_ID,
                        UNSUBSCRIPTION.RESUBSCRIBED_AT,
                        PERSON.NAME)
                .from(UNSUBSCRIPTION)
                .leftJoin(PERSON)
                .on(PERSON.ID.eq(UNSUBSCRIPTION.RESUBSCRIBED_BY))
                .where(UNSUBSCRIPTION.DEFINITION_ID.eq(definition))
                .orderBy(UNSUBSCRIPTION.UNSUBSCRIBED_AT.desc(), UNSUBSCRIPTION.ADDRESS)
                .fetch(mapping(UnsubscribedRecipient::new));
    }

    public boolean hasLeft(UUID definition, String address) {
        return db.fetchExists(UNSUBSCRIPTION, gone(definition, address));
    }

    /** A recipient who has unsubscribed stays unsubscribed. */
    @Transactional
    public void leave(UUID definition, String address, MessageId message) {
        db.insertInto(UNSUBSCRIPTION)
                .set(UNSUBSCRIPTION.DEFINITION_ID, definition)
                .set(UNSUBSCRIPTION.ADDRESS, lower(address))
                .set(UNSUBSCRIPTION.MESSAGE_ID, message)
                .set(UNSUBSCRIPTION.UNSUBSCRIBED_AT, clock.instant())
                .onConflictDoNothing()
                .execute();
    }

    /** @param by null if the recipient resubscribed by the link @return false if they were not gone */
    @Transactional
    public boolean comeBack(UUID definition, String address, @Nullable Person by) {
        if (by != null) audit.record(db, by.id(), AuditAct.RESUBSCRIBE, String.valueOf(definition), address);
        return db.update(UNSUBSCRIPTION)
                        .set(UNSUBSCRIPTION.RESUBSCRIBED_AT, clock.instant())
                        .set(UNSUBSCRIPTION.RESUBSCRIBED_BY, by == null ? null : by.id())
                        .where(gone(definition, address))
                        .execute()
                == 1;
    }

    private static Condition gone(UUID definition, String address) {
        return UNSUBSCRIPTION
                .DEFINITION_ID
                .eq(definition)
                .and(UNSUBSCRIPTION.ADDRESS.eq(lower(address)))
                .and(UNSUBSCRIPTION.RESUBSCRIBED_AT.isNull());
    }

    private static String lower(String address) {
        return address.toLowerCase(Locale.ROOT);
    }
}
