package dev.oddsentry.service.mail;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE_FILE;

import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.ExtractFiles;
import java.util.ArrayList;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** The files of a stored message: those that are attached, then those that stayed behind its link. */
@Component
public class MessageFiles {
    private final DSLContext db;

    MessageFiles(DSLContext db) {
        this.db = db;
    }

    /** A file by its place among those of its message; {@code GET /api/extracts/ID/files/PLACE} has it. */
    public record StoredFile(String name, String mediaType, int bytes) {}

    /** What there is, without the files themselves. @param mime the message as it is stored */
    public List<StoredFile> list(MessageId message, byte[] mime) {
        return of(message, mime).stream()
                .map(file -> new StoredFile(file.name(), file.mediaType(), file.bytes().length))
                .toList();
    }

    /** @param mime the message as it is stored */
    public List<ExtractFiles.File> of(MessageId message, byte[] mime) {
        var files = new ArrayList<>(MessageParts.files(mime));
        files.addAll(kept(message));
        return files;
    }

    /** Those that stayed behind the link. */
    public List<ExtractFiles.File> kept(MessageId message) {
        return db.selectFrom(MESSAGE_FILE)
                .where(MESSAGE_FILE.MESSAGE_ID.eq(message))
                .orderBy(MESSAGE_FILE.PLACE)
                .fetch(row -> new ExtractFiles.File(row.getName(), row.getMediaType(), row.getBytes()));
    }
}
