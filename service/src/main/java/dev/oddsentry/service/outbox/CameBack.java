package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static dev.oddsentry.service.db.generated.Tables.RECIPIENT_TRY;
import static dev.oddsentry.service.db.generated.Tables.TROUBLE;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.MessageRecipientRecord;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.mail.ReturnPaths;
import dev.oddsentry.service.reach.Reach;
import dev.oddsentry.service.trouble.Teams;
import java.time.Clock;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/**
 * Mail that comes back for good: the recipient did not get it, the address is held as bad until a person says that it is right, and the team that owns the
 * rule hears of it, once for each address.
 */
@Component
public class CameBack {
    private static final Set<RecipientState> TAKEN = Set.of(RecipientState.SENT, RecipientState.UNSURE);

    private final DSLContext db;
    private final Clock clock;
    private final TakingBack takingBack;
    private final Reach reach;
    private final DefinitionStore definitions;
    private final Teams teams;
    private final MessageBuilder messages;
    private final Outbox outbox;
    private final ReturnPaths returnPaths;
    private final Settings settings;

    CameBack(
            DSLContext db,
            Clock clock,
            TakingBack takingBack,
            Reach reach,
            DefinitionStore definitions,
            Teams teams,
            MessageBuilder messages,
            Outbox outbox,
            ReturnPaths returnPaths,
            Settings settings) {
        this.returnPaths = returnPaths;
        this.db = db;
        this.clock = clock;
        this.takingBack = takingBack;
        this.reach = reach;
        this.definitions = definitions;
        this.teams = teams;
        this.messages = messages;
        this.outbox = outbox;
        this.settings = settings;
    }

    /**
     * A report that came back says that a recipient did not get the message.
     *
     * @param token of the envelope that the report answers
     * @return {@code false} if no recipient had that envelope, or it is known already
     */
    @Transactional
    public boolean record(ReturnPaths.Token token, String words) {
        UUID id = token.message();
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
        recipient.get().setState(RecipientState.REFUSED);
        recipient.get().setWords(said);
        recipient.get().setNextTry(null);
        recipient.get().update();
        db.insertInto(RECIPIENT_TRY)
                .set(RECIPIENT_TRY.MESSAGE_ID, id)
                .set(RECIPIENT_TRY.ADDRESS, recipient.get().getAddress())
                .set(RECIPIENT_TRY.AT, clock.instant())
                .set(RECIPIENT_TRY.OUTCOME, RecipientState.REFUSED)
                .set(RECIPIENT_TRY.WORDS, said)
                .execute();
        takingBack.ifNobodyGotIt(id);
        hold(id, recipient.get().getAddress(), words);
        return true;
    }

    /** Part of the caller's transaction. */
    void hold(UUID id, String address, String words) {
        if (!reach.hold(address, words, id)) return;
        var message = db.selectFrom(MESSAGE).where(MESSAGE.ID.eq(id)).fetchSingle();
        String owner = owner(message);
        if (owner != null) tell(owner, message, address, words);
    }

    private @Nullable String owner(MessageRecord message) {
        var rule = message.getRuleId() == null ? message.getEscalationOf() : message.getRuleId();
        if (rule != null)
            return definitions.rule(rule).orElseThrow().definition().owner();
        if (message.getRoundUpId() != null)
            return definitions
                    .roundUp(message.getRoundUpId())
                    .orElseThrow()
                    .definition()
                    .owner();
        return null;
    }

    private void tell(String owner, MessageRecord message, String address, String words) {
        String text = "Mail to " + address + " comes back for good. The mail system says:\n  " + words
                + "\n\nIt was: " + message.getSubject() + "\n  " + settings.baseUrl() + "/outbox/" + message.getId()
                + "\n\nNothing goes to that address any more, of any rule, until somebody says that it is right:\n"
                + "  odd bad-addresses --right " + address + "\nor corrects it in the rules that name it. "
                + "Whoever else gets these mails still does.\n\nYou get this since you own the rule. It is said once for each address.\n";
        var told = messages.plain(owner, teams.addressesOf(owner), "Mail comes back: " + address, text);
        if (told.to().isEmpty()) return;
        var now = clock.instant();
        // Over at once: what is held stands on its own, and nobody is told again.
        long trouble = db.insertInto(TROUBLE)
                .set(TROUBLE.CAUSE, "mail to " + address)
                .set(TROUBLE.BEGAN_AT, now)
                .set(TROUBLE.MAILED_AT, now)
                .set(TROUBLE.OVER_AT, now)
                .returning(TROUBLE.ID)
                .fetchSingle()
                .getId();
        outbox.queue(trouble, now, told);
    }
}
