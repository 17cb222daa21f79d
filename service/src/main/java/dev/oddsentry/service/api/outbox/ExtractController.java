package dev.oddsentry.service.api.outbox;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static org.jooq.impl.DSL.coalesce;

import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.MessageFiles;
import dev.oddsentry.service.mail.MessageParts;
import dev.oddsentry.service.web.RefusedException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What a mail reported, as it was then: its rows and its files. The link in the mail leads here, behind log-in. */
@RestController
@RequestMapping("/api/extracts")
class ExtractController {
    private static final String PAGE = "text/html";

    private final DSLContext db;
    private final MessageFiles files;

    ExtractController(DSLContext db, MessageFiles files) {
        this.db = db;
        this.files = files;
    }

    /** @param rule null of a round-up's */
    record ReportView(
            MessageId message,
            String subject,
            @Nullable String rule,
            Instant slot,
            List<MessageFiles.StoredFile> files) {}

    @GetMapping(path = "/{id}", produces = "application/json")
    ReportView getReport(@PathVariable UUID id) {
        var row = db.select(MESSAGE.SUBJECT, DEFINITION.NAME, MESSAGE.SLOT)
                .from(MESSAGE)
                .leftJoin(DEFINITION)
                .on(DEFINITION.ID.eq(coalesce(MESSAGE.RULE_ID, MESSAGE.PREVIEW_OF, MESSAGE.ESCALATION_OF)
                        .coerce(DEFINITION.ID)))
                .where(MESSAGE.ID.eq(new MessageId(id)))
                .fetchOptional()
                .orElseThrow(ExtractController::unknown);
        var all = files.list(new MessageId(id), mime(id));
        return new ReportView(new MessageId(id), row.value1(), row.value2(), row.value3(), all);
    }

    /** The rows: those that stayed behind the link, or the mail as it was. */
    @GetMapping(path = "/{id}/rows", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> getReportRows(@PathVariable UUID id) {
        String html = files.kept(new MessageId(id)).stream()
                .filter(file -> file.mediaType().startsWith(PAGE))
                .findFirst()
                .map(file -> new String(file.bytes(), StandardCharsets.UTF_8))
                .orElseGet(() -> MessageParts.of(mime(id)).html());
        return ResponseEntity.ok()
                .header("Content-Security-Policy", MessageParts.CAN_DO_NOTHING)
                .body(html);
    }

    /** @param place among its files, from 0 */
    @GetMapping("/{id}/files/{place}")
    ResponseEntity<byte[]> getReportFile(@PathVariable UUID id, @PathVariable int place) {
        var all = files.of(new MessageId(id), mime(id));
        if (place < 0 || place >= all.size()) throw RefusedException.notFound("It has no such file.");
        var file = all.get(place);
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename(file.name(), StandardCharsets.UTF_8)
                                .build()
                                .toString())
                .contentType(MediaType.parseMediaType(file.mediaType()))
                .body(file.bytes());
    }

    private byte[] mime(UUID id) {
        return db.select(MESSAGE.MIME)
                .from(MESSAGE)
                .where(MESSAGE.ID.eq(new MessageId(id)))
                .fetchOptional(MESSAGE.MIME)
                .orElseThrow(ExtractController::unknown);
    }

    private static RefusedException unknown() {
        return RefusedException.notFound("No such report: it was never sent, or it has been deleted.");
    }
}
