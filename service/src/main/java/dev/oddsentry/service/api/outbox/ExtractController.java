package dev.oddsentry.service.api.outbox;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_FILE;
import static org.jooq.impl.DSL.coalesce;

import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.mail.MessageParts;
import dev.oddsentry.service.web.RefusedException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
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

    ExtractController(DSLContext db) {
        this.db = db;
    }

    /** @param rule null of a round-up's */
    record ReportView(
            MessageId message, String subject, @Nullable String rule, Instant slot, List<ReportFile> files) {}

    record ReportFile(String name, String mediaType, int bytes) {}

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
        var files = files(id).stream()
                .map(file -> new ReportFile(file.name(), file.mediaType(), file.bytes().length))
                .toList();
        return new ReportView(new MessageId(id), row.value1(), row.value2(), row.value3(), files);
    }

    /** The rows: those that stayed behind the link, or the mail as it was. */
    @GetMapping(path = "/{id}/rows", produces = "text/html;charset=UTF-8")
    ResponseEntity<String> getReportRows(@PathVariable UUID id) {
        String html = kept(id).stream()
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
        var files = files(id);
        if (place < 0 || place >= files.size()) throw RefusedException.notFound("It has no such file.");
        var file = files.get(place);
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

    private List<ExtractFiles.File> files(UUID id) {
        var files = new ArrayList<>(MessageParts.files(mime(id)));
        files.addAll(kept(id));
        return files;
    }

    private List<ExtractFiles.File> kept(UUID id) {
        return db.selectFrom(MESSAGE_FILE)
                .where(MESSAGE_FILE.MESSAGE_ID.eq(new MessageId(id)))
                .orderBy(MESSAGE_FILE.PLACE)
                .fetch(row -> new ExtractFiles.File(row.getName(), row.getMediaType(), row.getBytes()));
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
