package dev.oddsentry.service.outbox;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_FILE;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.SmallerMessage;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Makes a message smaller that the mail server finds too large, and keeps what it no longer carries. */
@Component
class SmallerMessages {
    private final DSLContext db;
    private final Settings settings;

    SmallerMessages(DSLContext db, Settings settings) {
        this.db = db;
        this.settings = settings;
    }

    /** Part of the caller's transaction. @return false if it cannot be made smaller */
    boolean make(MessageId messageId) {
        var message = db.selectFrom(MESSAGE)
                .where(MESSAGE.ID.eq(messageId))
                .forUpdate()
                .fetchSingle();
        var smaller =
                SmallerMessage.of(message.getMime(), message.getSlot(), settings.baseUrl() + "/extracts/" + messageId);
        if (smaller.isEmpty()) return false;
        message.setMime(smaller.get().mime());
        message.update();
        int place = db.fetchCount(MESSAGE_FILE, MESSAGE_FILE.MESSAGE_ID.eq(messageId));
        for (var file : smaller.get().kept()) {
            db.insertInto(MESSAGE_FILE)
                    .set(MESSAGE_FILE.MESSAGE_ID, messageId)
                    .set(MESSAGE_FILE.PLACE, place++)
                    .set(MESSAGE_FILE.NAME, file.name())
                    .set(MESSAGE_FILE.MEDIA_TYPE, file.mediaType())
                    .set(MESSAGE_FILE.BYTES, file.bytes())
                    .execute();
        }
        return true;
    }
}
