package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.RECIPIENT_TRY;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.MessageRecipientRecord;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.failures.IncidentKind;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.ReturnPaths;
import dev.oddsentry.service.recipients.BlockedRecipients;
import java.time.Clock;
import java.util.List;
import java.util.Set;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Bounced mail: the recipient did not get it, the address is blocked until a person unblocks it, and the team that owns the
 * rule gets one notice for each address.
 */
@Component
public class BounceHandler {
    private static final Set<RecipientState> TAKEN =
            Set.of(RecipientState.SENT, RecipientState.UNSURE, RecipientState.UNCONFIRMED);

    private final DSLContext db;
    private final Clock clock;
    private final SettledMessages settled;
    private final BlockedRecipients reach;
    private final OwnerMail ownerMail;
    private final DeliveryNotices notices;
    private final ReturnPaths returnPaths;
    private final Settings settings;

    BounceHandler(
            DSLContext db,
            Clock clock,
            SettledMessages settled,
            BlockedRecipients reach,
            OwnerMail ownerMail,
            DeliveryNotices notices,
            ReturnPaths returnPaths,
            Settings settings) {
        this.returnPaths = returnPaths;
        this.db = db;
        this.clock = clock;
        this.settled = settled;
        this.reach = reach;
        this.ownerMail = ownerMail;
        this.notices = notices;
        this.settings = settings;
    }

    /**
     * A delivery report says that a recipient did not get the message.
     *
     * @param token of the envelope that the report answers
     * @param ofTheAddress whether the address is to blame, so that nothing goes there any more
     * @return {@code false} if no recipient had that envelope, or it is known already
     */
    @Transactional
    public boolean record(ReturnPaths.Token token, String words, boolean ofTheAddress) {
        MessageId id = token.message();
        var recipients = db.selectFrom(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(id))
                .forUpdate()
                .fetch();
        var address = returnPaths.recipient(token, recipients.map(MessageRecipientRecord::getAddress));
        var recipient = recipients.stream()
                .filter(each -> address.isPresent() && each.getAddress().equals(address.get()))
                .findFirst();
        if (recipient.isEmpty() || !TAKEN.contains(recipient.get().getState())) return false;
        String said = "It came back: " + words;
        recipient.get().setState(RecipientState.REJECTED);
        recipient.get().setResponse(said);
        recipient.get().setNextTry(null);
        recipient.get().update();
        db.insertInto(RECIPIENT_TRY)
                .set(RECIPIENT_TRY.MESSAGE_ID, id)
                .set(RECIPIENT_TRY.ADDRESS, recipient.get().getAddress())
                .set(RECIPIENT_TRY.AT, clock.instant())
                .set(RECIPIENT_TRY.OUTCOME, RecipientState.REJECTED)
                .set(RECIPIENT_TRY.RESPONSE, said)
                .execute();
        if (ofTheAddress) hold(id, recipient.get().getAddress(), words);
        settled.after(id);
        return true;
    }

    /** Part of the caller's transaction. */
    void hold(MessageId id, String address, String words) {
        if (!reach.hold(address, words, id)) return;
        var message = db.selectFrom(MESSAGE).where(MESSAGE.ID.eq(id)).fetchSingle();
        var owner = ownerMail.owner(message);
        if (owner == null) return;
        tell(owner, message, address, words);
        notices.toldOfRefusal(message);
    }

    private void tell(OwnerMail.Owner owner, MessageRecord message, String address, String words) {
        ownerMail.send(
                owner,
                IncidentKind.MAIL_BLOCKED,
                address,
                List.of(address),
                phrases -> new TeamNotices.Notice(
                        phrases.of("notice.blocked.subject", address),
                        String.join(
                                "\n",
                                phrases.of("notice.blocked.bounces", address),
                                "  " + words,
                                "",
                                phrases.of("notice.blocked.message"),
                                "  " + message.getSubject(),
                                "  " + settings.baseUrl() + "/outbox/" + message.getId(),
                                "",
                                phrases.of("notice.blocked.next", address),
                                "",
                                phrases.of("notice.owner", phrases.of("notice.blocked.often")),
                                "")));
    }
}
