package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_FILE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.recipients.ReaderChoices;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Queues messages in the transaction of the check that made them, each with the durable task that hands it over. */
@Component
public class Outbox {
    private final DSLContext db;
    private final Clock clock;
    private final SendTasks tasks;
    private final Settings.Mail mail;
    private final ReaderChoices choices;

    Outbox(DSLContext db, Clock clock, SendTasks tasks, Settings settings, ReaderChoices choices) {
        this.choices = choices;
        this.mail = settings.mail();
        this.db = db;
        this.clock = clock;
        this.tasks = tasks;
    }

    /** @param slot the time that the message is about; relative dates in it count from there */
    public MessageId queue(MessageCause cause, Instant slot, NewMessage message) {
        var row = db.newRecord(MESSAGE);
        cause.writeTo(row);
        MessageId id = message.id();
        Instant now = clock.instant();
        row.setId(id);
        row.setMessageId(message.messageId());
        row.setSubject(message.subject());
        row.setMime(message.mime());
        row.setSlot(slot);
        row.setCreatedAt(now);
        row.setLateNotice(message.ways().late());
        row.setAllowUnsubscribe(message.ways().mayLeave() || Boolean.TRUE.equals(row.getAllowUnsubscribe()));
        row.setReaderLinks(message.ways().choices() != null
                || message.ways().mayLeave()
                || Boolean.TRUE.equals(row.getReaderLinks()));
        row.insert();
        keep(id, message.ways().kept());
        message.barred()
                .forEach((address, why) -> db.insertInto(MESSAGE_RECIPIENT)
                        .set(MESSAGE_RECIPIENT.MESSAGE_ID, id)
                        .set(MESSAGE_RECIPIENT.ADDRESS, address)
                        .set(MESSAGE_RECIPIENT.STATE, why.left() ? RecipientState.CANCELLED : RecipientState.REJECTED)
                        .set(MESSAGE_RECIPIENT.RESPONSE, why.words())
                        .execute());
        var later = later(row, message);
        message.to().forEach(address -> insert(id, address, later, now));
        tasks.planAt(id, now);
        return id;
    }

    /** Those for whom it is kept back. A repeat is sent as somebody wants it to be. */
    private Set<String> later(MessageRecord row, NewMessage message) {
        var allowed = message.ways().choices();
        UUID definition =
                row.getRuleId() == null ? row.getRoundUpId() : row.getRuleId().value();
        return allowed == null || definition == null ? Set.of() : choices.kept(definition, allowed);
    }

    private void insert(MessageId id, String address, Set<String> later, Instant now) {
        boolean allowed = mail.allows(address);
        boolean waits = allowed && later.contains(address.toLowerCase(Locale.ROOT));
        db.insertInto(MESSAGE_RECIPIENT)
                .set(MESSAGE_RECIPIENT.MESSAGE_ID, id)
                .set(MESSAGE_RECIPIENT.ADDRESS, address)
                .set(
                        MESSAGE_RECIPIENT.STATE,
                        waits ? RecipientState.WAITING : allowed ? RecipientState.QUEUED : RecipientState.REJECTED)
                .set(MESSAGE_RECIPIENT.NEXT_TRY, allowed && !waits ? now : null)
                .set(MESSAGE_RECIPIENT.RESPONSE, allowed ? null : "The operator allows no mail to this domain.")
                .execute();
    }

    private void keep(MessageId id, List<ExtractFiles.File> files) {
        for (int place = 0; place < files.size(); place++) {
            var file = files.get(place);
            db.insertInto(MESSAGE_FILE)
                    .set(MESSAGE_FILE.MESSAGE_ID, id)
                    .set(MESSAGE_FILE.PLACE, place)
                    .set(MESSAGE_FILE.NAME, file.name())
                    .set(MESSAGE_FILE.MEDIA_TYPE, file.mediaType())
                    .set(MESSAGE_FILE.BYTES, file.bytes())
                    .execute();
        }
    }
}
