package dev.oddsentry.service.api.audit;

import dev.oddsentry.extracts.csv.CsvTable;
import dev.oddsentry.service.audit.AuditTrail;
import dev.oddsentry.service.audit.AuditTrail.ActKind;
import dev.oddsentry.service.audit.AuditTrail.Ask;
import dev.oddsentry.service.audit.AuditTrail.AuditEntry;
import dev.oddsentry.service.audit.AuditTrail.AuditPage;
import dev.oddsentry.service.db.Json;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Who did what, as a list and as files. */
@RestController
@RequestMapping("/api")
class AuditController {
    private final AuditTrail trail;

    AuditController(AuditTrail trail) {
        this.trail = trail;
    }

    /**
     * @param by a log-in name; everybody if absent
     * @param kind changes, looks at data, or log-ins; all if absent
     * @param q in what it is about and in the detail
     * @param from from this moment on
     * @param to before this moment
     * @param before the number of the entry that the page before ended with
     */
    @GetMapping(path = "/audit", produces = "application/json")
    AuditPage listAuditEntries(
            @RequestParam(required = false) @Nullable String by,
            @RequestParam(required = false) @Nullable ActKind kind,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant to,
            @RequestParam(required = false) @Nullable Long before) {
        return trail.page(new Ask(by, kind, q, from, to, before));
    }

    /** Those of {@link #listAuditEntries}, all pages. */
    @GetMapping(path = "/audit.csv", produces = "text/csv;charset=UTF-8")
    void exportAuditAsCsv(
            @RequestParam(required = false) @Nullable String by,
            @RequestParam(required = false) @Nullable ActKind kind,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant to,
            HttpServletResponse response)
            throws IOException {
        var out = begin(response, "text/csv;charset=UTF-8", "audit.csv");
        var table = new CsvTable(out, List.of("at", "by", "name", "kind", "act", "about", "detail"));
        trail.each(
                new Ask(by, kind, q, from, to, null),
                entry -> table.row(row(entry).values().stream()
                        .map(value -> Objects.requireNonNullElse(value, ""))
                        .toList()));
        table.end();
    }

    /** Those of {@link #listAuditEntries}, all pages. */
    @GetMapping(path = "/audit.jsonl", produces = "application/jsonl;charset=UTF-8")
    void exportAuditAsJsonLines(
            @RequestParam(required = false) @Nullable String by,
            @RequestParam(required = false) @Nullable ActKind kind,
            @RequestParam(defaultValue = "") String q,
            @RequestParam(required = false) @Nullable Instant from,
            @RequestParam(required = false) @Nullable Instant to,
            HttpServletResponse response)
            throws IOException {
        var out = begin(response, "application/jsonl;charset=UTF-8", "audit.jsonl");
        trail.each(new Ask(by, kind, q, from, to, null), entry -> {
            try {
                out.write(Json.writeInOrder(row(entry)).data().getBytes(StandardCharsets.UTF_8));
                out.write('\n');
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
        out.flush();
    }

    private static OutputStream begin(HttpServletResponse response, String type, String file) throws IOException {
        response.setContentType(type);
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"" + file + "\"");
        return response.getOutputStream();
    }

    private static Map<String, @Nullable String> row(AuditEntry entry) {
        var row = new LinkedHashMap<String, @Nullable String>();
        row.put("at", entry.at().toString());
        row.put("by", entry.login());
        row.put("name", entry.name());
        row.put("kind", word(entry.kind()));
        row.put("act", word(entry.act()));
        row.put("about", entry.subject());
        row.put("detail", entry.detail());
        return row;
    }

    private static String word(Enum<?> code) {
        return code.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }
}
