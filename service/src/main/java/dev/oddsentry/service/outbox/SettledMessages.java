package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import dev.oddsentry.service.ids.MessageId;
import java.util.List;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/**
 * What follows once recipients of a message have moved: notices to its owner, and updates that become unreported where nobody got them. A
 * collection that was not delivered leaves the messages in it undelivered.
 */
@Component
class SettledMessages {
    private static final Set<RecipientState> NOT_GOT =
            Set.of(RecipientState.REJECTED, RecipientState.EXPIRED, RecipientState.UNCONFIRMED);

    private final DSLContext db;
    private final DeliveryNotices notices;
    private final ReportReversal reversal;

    SettledMessages(DSLContext db, DeliveryNotices notices, ReportReversal reversal) {
        this.db = db;
        this.notices = notices;
        this.reversal = reversal;
    }

    /** Part of the transaction that moved them. */
    void after(MessageId message) {
        settle(message);
        undelivered(message).forEach(this::settle);
    }

    /** A message that was unconfirmed has arrived; where it is a collection, so have the messages in it. */
    void confirmed(MessageId message) {
        db.update(MESSAGE_RECIPIENT)
                .set(MESSAGE_RECIPIENT.STATE, RecipientState.COLLECTED)
                .where(
                        MESSAGE_RECIPIENT.COLLECTED_IN.eq(message),
                        MESSAGE_RECIPIENT.STATE.eq(RecipientState.UNCONFIRMED))
                .execute();
    }

    private void settle(MessageId message) {
        notices.afterwards(message);
        reversal.ifNobodyGotIt(message);
    }

    /** The messages of a collection that its only recipient did not get. */
    private List<MessageId> undelivered(MessageId collection) {
        var reader = db.select(MESSAGE_RECIPIENT.STATE, MESSAGE_RECIPIENT.RESPONSE)
                .from(MESSAGE_RECIPIENT)
                .join(MESSAGE)
                .on(MESSAGE.ID.eq(MESSAGE_RECIPIENT.MESSAGE_ID))
                .where(
                        MESSAGE.ID.eq(collection),
                        MESSAGE.COLLECTION_FOR.isNotNull(),
                        MESSAGE_RECIPIENT.STATE.in(NOT_GOT))
                .fetchOne();
        if (reader == null) return List.of();
        return db.update(MESSAGE_RECIPIENT)
                .set(MESSAGE_RECIPIENT.STATE, reader.value1())
                .set(MESSAGE_RECIPIENT.RESPONSE, reader.value2())
                .where(
                        MESSAGE_RECIPIENT.COLLECTED_IN.eq(collection),
                        MESSAGE_RECIPIENT.STATE.eq(RecipientState.COLLECTED))
                .returningResult(MESSAGE_RECIPIENT.MESSAGE_ID)
                .fetch(MESSAGE_RECIPIENT.MESSAGE_ID);
    }
}
