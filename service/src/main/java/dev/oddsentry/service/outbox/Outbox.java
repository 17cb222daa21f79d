package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_FILE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.mail.NewMessage;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Queues messages in the transaction of the check that made them, each with the durable task that hands it over. */
@Component
public class Outbox {
    private final DSLContext db;
    private final Clock clock;
    private final SendTasks tasks;
    private final Settings.Mail mail;

    Outbox(DSLContext db, Clock clock, SendTasks tasks, Settings settings) {
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
        row.insert();
        keep(id, message.ways().kept());
        message.barred()
                .forEach((address, why) -> db.insertInto(MESSAGE_RECIPIENT)
                        .set(MESSAGE_RECIPIENT.MESSAGE_ID, id)
                        .set(MESSAGE_RECIPIENT.ADDRESS, address)
                        .set(MESSAGE_RECIPIENT.STATE, why.left() ? RecipientState.CANCELLED : RecipientState.REJECTED)
                        .set(MESSAGE_RECIPIENT.RESPONSE, why.words())
                        .execute());
        for (String address : message.to()) {
            boolean allowed = mail.allows(address);
            db.insertInto(MESSAGE_RECIPIENT)
                    .set(MESSAGE_RECIPIENT.MESSAGE_ID, id)
                    .set(MESSAGE_RECIPIENT.ADDRESS, address)
                    .set(MESSAGE_RECIPIENT.STATE, allowed ? RecipientState.QUEUED : RecipientState.REJECTED)
                    .set(MESSAGE_RECIPIENT.NEXT_TRY, allowed ? now : null)
                    .set(MESSAGE_RECIPIENT.RESPONSE, allowed ? null : "The operator allows no mail to this domain.")
                    .execute();
        }
        tasks.planAt(id, now);
        return id;
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
