package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.RECIPIENT_TRY;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.MessageRecipientRecord;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.mail.LateNote;
import dev.oddsentry.service.mail.MailServer.Reply;
import dev.oddsentry.service.mail.ServerWords;
import dev.oddsentry.service.recipients.BlockedRecipients;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** The states of a message's recipients around a hand-over, each move in a short transaction. */
@Component
class Deliveries {
    private static final Set<RecipientState> UNDONE =
            Set.of(RecipientState.QUEUED, RecipientState.SENDING, RecipientState.UNSURE);
    /** A release wakes it, so this is for a release that is missed. */
    private static final Duration LOOK_AT_HELD = Duration.ofMinutes(1);

    private static final Duration LOOK_AT_EARLIER = Duration.ofSeconds(1);
    private static final Duration LONGEST_WAIT_FOR_EARLIER = Duration.ofHours(1);
    private static final Duration LONGEST_WAIT = Duration.ofMinutes(30);
    /** The server is away, and it is seen at once when it is back. */
    private static final Duration LONGEST_WAIT_FOR_SERVER = Duration.ofMinutes(5);

    private final DSLContext db;
    private final Clock clock;
    private final Settings.Mail settings;
    private final BlockedRecipients reach;
    private final BounceHandler cameBack;
    private final SmallerMessages smaller;
    private final SettledMessages settled;

    Deliveries(
            DSLContext db,
            Clock clock,
            Settings settings,
            BlockedRecipients reach,
            BounceHandler cameBack,
            SmallerMessages smaller,
            SettledMessages settled) {
        this.smaller = smaller;
        this.settled = settled;
        this.cameBack = cameBack;
        this.reach = reach;
        this.db = db;
        this.clock = clock;
        this.settings = settings.mail();
    }

    /**
     * @param to those that are due now, marked as being handed over
     * @param lookAgainIn when to look again where it must wait, for whichever recipient; null where it need not
     */
    record Due(
            byte[] mime,
            List<String> to,
            boolean readerLinks,
            boolean mayLeave,
            @Nullable Duration lookAgainIn) {}

    private static Due later(MessageRecord message, Duration lookAgainIn) {
        return new Due(message.getMime(), List.of(), false, false, lookAgainIn);
    }

    @Transactional
    public Due claim(MessageId messageId) {
        var message = db.selectFrom(MESSAGE).where(MESSAGE.ID.eq(messageId)).fetchSingle();
        if (db.fetchExists(MESSAGE, MESSAGE.ID.eq(messageId).and(Holds.isHeld()))) return later(message, LOOK_AT_HELD);
        if (waitsForEarlier(message)) return later(message, LOOK_AT_EARLIER);
        boolean expired = !message.getCreatedAt().plus(settings.expireAfter()).isAfter(clock.instant());
        var to = new ArrayList<String>();
        var barred = message.getPreviewOf() != null
                ? Map.<String, BlockedRecipients.Barred>of()
                : reach.barred(Stream.of(
                                RuleId.valueOf(message.getRuleId()),
                                message.getRoundUpId(),
                                RuleId.valueOf(message.getEscalationOf()))
                        .filter(Objects::nonNull)
                        .findFirst()
                        .orElse(null));
        var undone = undone(messageId);
        sayWhereLate(message, undone);
        for (var recipient : undone) {
            if (!isDue(recipient)) continue;
            if (recipient.getState() == RecipientState.SENDING) recordLostNode(recipient);
            var why = barred.get(recipient.getAddress().toLowerCase(Locale.ROOT));
            if (why != null) {
                giveUp(recipient, why.left() ? RecipientState.CANCELLED : RecipientState.REJECTED, why.words());
            } else if (expired && recipient.getTries() > 0) {
                giveUp(recipient, RecipientState.EXPIRED, recipient.getResponse());
            } else {
                recipient.setTries(recipient.getTries() + 1);
                move(recipient, RecipientState.SENDING, recipient.getResponse(), null);
                to.add(recipient.getAddress());
            }
        }
        settled.after(messageId);
        return new Due(message.getMime(), to, message.getReaderLinks(), message.getAllowUnsubscribe(), null);
    }

    /** Before anybody got it, so that everybody gets the same. */
    private void sayWhereLate(MessageRecord message, List<MessageRecipientRecord> undone) {
        boolean late = !message.getSlot().plus(settings.lateAfter()).isAfter(clock.instant());
        if (!late || message.getLateNotice() == null || undone.stream().anyMatch(each -> each.getTries() > 0)) return;
        message.setMime(LateNote.into(message.getMime(), message.getLateNotice()));
        message.setLateNotice(null);
        message.update();
    }

    /** One audience's messages are handed over in the order of their slots; a later one waits for an earlier at most an hour. */
    private boolean waitsForEarlier(MessageRecord message) {
        if (message.getAudienceId() == null || message.getRepeatOf() != null) return false;
        return db.fetchExists(
                MESSAGE,
                MESSAGE.AUDIENCE_ID
                        .eq(message.getAudienceId())
                        .and(MESSAGE.REPEAT_OF.isNull())
                        .and(MESSAGE.SLOT.lt(message.getSlot()))
                        .and(MESSAGE.CREATED_AT.gt(clock.instant().minus(LONGEST_WAIT_FOR_EARLIER)))
                        .and(MESSAGE.ID.in(DSL.select(MESSAGE_RECIPIENT.MESSAGE_ID)
                                .from(MESSAGE_RECIPIENT)
                                .where(
                                        MESSAGE_RECIPIENT.STATE.in(UNDONE),
                                        MESSAGE_RECIPIENT
                                                .NEXT_TRY
                                                .isNotNull()
                                                .or(MESSAGE_RECIPIENT.STATE.eq(RecipientState.SENDING))))));
    }

    /** One being handed over without a next try was left so by a node that died. */
    private boolean isDue(MessageRecipientRecord recipient) {
        Instant nextTry = recipient.getNextTry();
        if (nextTry == null) return recipient.getState() == RecipientState.SENDING;
        return !nextTry.isAfter(clock.instant());
    }

    private List<MessageRecipientRecord> undone(MessageId messageId) {
        return db.selectFrom(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(messageId), MESSAGE_RECIPIENT.STATE.in(UNDONE))
                .orderBy(MESSAGE_RECIPIENT.ADDRESS)
                .forUpdate()
                .fetch();
    }

    private static void move(
            MessageRecipientRecord recipient, RecipientState state, @Nullable String words, @Nullable Instant nextTry) {
        recipient.setState(state);
        recipient.setResponse(words);
        recipient.setNextTry(nextTry);
        recipient.update();
    }

    /** A node began to send it and recorded no result, so the mail server may have it. */
    private void recordLostNode(MessageRecipientRecord recipient) {
        recordTry(recipient, "The service ended during the hand-over.", RecipientState.UNSURE);
    }

    /** If the mail server may have accepted an earlier try, the recipient may have it. */
    private void giveUp(MessageRecipientRecord recipient, RecipientState state, @Nullable String words) {
        boolean mayHaveIt = state != RecipientState.CANCELLED && hasBeenUnsure(recipient);
        move(recipient, mayHaveIt ? RecipientState.UNCONFIRMED : state, words, null);
    }

    @Transactional
    public void record(MessageId messageId, Map<String, Reply> replies) {
        confirm(messageId, replies);
        for (var recipient : undone(messageId)) {
            Reply reply = replies.get(recipient.getAddress());
            if (reply == null) continue;
            RecipientState outcome = outcome(reply);
            recordTry(recipient, reply.words(), outcome);
            if (UNDONE.contains(outcome)) move(recipient, outcome, reply.words(), nextTry(recipient, reply));
            else if (outcome == RecipientState.SENT) move(recipient, outcome, reply.words(), null);
            else giveUp(recipient, outcome, reply.words());
            if (reply instanceof Reply.Refused && ServerWords.isOfTheAddress(reply.words()))
                cameBack.hold(messageId, recipient.getAddress(), reply.words());
        }
        if (replies.values().stream().anyMatch(Reply.TooLarge.class::isInstance)) makeSmaller(messageId);
        settled.after(messageId);
    }

    /** A node that stood still in its hand-over comes back with an answer after another has given up. */
    private void confirm(MessageId messageId, Map<String, Reply> replies) {
        replies.forEach((address, reply) -> {
            if (!(reply instanceof Reply.Taken)) return;
            int confirmed = db.update(MESSAGE_RECIPIENT)
                    .set(MESSAGE_RECIPIENT.STATE, RecipientState.SENT)
                    .set(MESSAGE_RECIPIENT.RESPONSE, reply.words())
                    .where(
                            MESSAGE_RECIPIENT.MESSAGE_ID.eq(messageId),
                            MESSAGE_RECIPIENT.ADDRESS.eq(address),
                            MESSAGE_RECIPIENT.STATE.eq(RecipientState.UNCONFIRMED))
                    .execute();
            if (confirmed > 0) settled.confirmed(messageId);
        });
    }

    /** Where it cannot be made smaller, it is refused for good. */
    private void makeSmaller(MessageId messageId) {
        if (smaller.make(messageId)) return;
        for (var recipient : undone(messageId))
            if (isDue(recipient)) giveUp(recipient, RecipientState.REJECTED, recipient.getResponse());
    }

    private static RecipientState outcome(Reply reply) {
        return switch (reply) {
            case Reply.Taken _ -> RecipientState.SENT;
            case Reply.Refused _ -> RecipientState.REJECTED;
            case Reply.Delayed _, Reply.TooLarge _ -> RecipientState.QUEUED;
            case Reply.Unsure _ -> RecipientState.UNSURE;
        };
    }

    private boolean hasBeenUnsure(MessageRecipientRecord recipient) {
        return db.fetchExists(DSL.selectFrom(RECIPIENT_TRY)
                .where(
                        RECIPIENT_TRY.MESSAGE_ID.eq(recipient.getMessageId()),
                        RECIPIENT_TRY.ADDRESS.eq(recipient.getAddress()),
                        RECIPIENT_TRY.OUTCOME.eq(RecipientState.UNSURE)));
    }

    /** Twice as long each time; at once for a message that has become smaller. */
    private Instant nextTry(MessageRecipientRecord recipient, Reply reply) {
        if (reply instanceof Reply.TooLarge) return clock.instant();
        var longest = reply instanceof Reply.Delayed delayed && delayed.forEverybody()
                ? LONGEST_WAIT_FOR_SERVER
                : LONGEST_WAIT;
        Duration wait = settings.firstWait().multipliedBy(1L << Math.min(10, Math.max(0, recipient.getTries() - 1)));
        return clock.instant().plus(wait.compareTo(longest) > 0 ? longest : wait);
    }

    private void recordTry(MessageRecipientRecord recipient, String words, RecipientState outcome) {
        db.insertInto(RECIPIENT_TRY)
                .set(RECIPIENT_TRY.MESSAGE_ID, recipient.getMessageId())
                .set(RECIPIENT_TRY.ADDRESS, recipient.getAddress())
                .set(RECIPIENT_TRY.AT, clock.instant())
                .set(RECIPIENT_TRY.OUTCOME, outcome)
                .set(RECIPIENT_TRY.RESPONSE, words)
                .execute();
    }

    public Optional<Instant> nextTry(MessageId messageId) {
        return db.select(DSL.min(MESSAGE_RECIPIENT.NEXT_TRY))
                .from(MESSAGE_RECIPIENT)
                .where(MESSAGE_RECIPIENT.MESSAGE_ID.eq(messageId), MESSAGE_RECIPIENT.STATE.in(UNDONE))
                .fetchOptional(0, Instant.class);
    }
}
