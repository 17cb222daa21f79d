package dev.oddsentry.service.mail;

import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The fields that subjects and openings of mails may name. */
public final class MailFields {
    /** Rows that a text may quote. */
    private static final int FIRST_ROWS = 10;

    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm");
    private static final List<String> TEXTS = List.of(
            "title",
            "rule",
            "owner",
            "date",
            "time",
            "next",
            "split",
            "copy",
            "greeting",
            "because",
            "thresholds",
            "link");
    /** Before the name of a column of the recipient query. */
    private static final String RECIPIENT = "recipient_";

    private static final List<String> COUNTS = List.of("updates", "open");

    private MailFields() {}

    /** Every name but those of columns, which stand inside the section of rows. */
    public static Set<String> names() {
        var names = new LinkedHashSet<String>(TEXTS);
        names.addAll(COUNTS);
        for (var severity : Severity.values()) names.add(severity.word());
        for (var kind : UpdateKind.values()) names.add(name(kind));
        names.add(Template.ROWS);
        return names;
    }

    private static String name(UpdateKind kind) {
        return kind.code().replace(' ', '_');
    }

    /** What a mail is about, as far as texts name it. */
    public record Facts(
            String title,
            String rule,
            String owner,
            Instant slot,
            ZoneId zone,
            @Nullable Instant next,
            @Nullable String split,
            @Nullable String copy,
            @Nullable String greeting,
            Map<String, String> recipient,
            String because,
            String thresholds,
            String link,
            long open) {}

    /** The fields of a personal copy's row. */
    public static List<String> ofRecipient(List<String> columns) {
        return columns.stream().map(column -> RECIPIENT + column).toList();
    }

    public static Map<String, @Nullable Object> of(Facts facts, Extract news) {
        var fields = new HashMap<String, @Nullable Object>();
        var there = facts.slot().atZone(facts.zone());
        fields.put("title", facts.title());
        fields.put("rule", facts.rule());
        fields.put("owner", facts.owner());
        fields.put("date", there.toLocalDate().toString());
        fields.put("time", TIME.format(there));
        var next = facts.next() == null ? null : facts.next().atZone(facts.zone());
        fields.put("next", next == null ? "" : next.toLocalDate() + " " + TIME.format(next));
        fields.put("split", text(facts.split()));
        fields.put("copy", text(facts.copy()));
        fields.put("greeting", text(facts.greeting()));
        fields.put("because", facts.because());
        fields.put("thresholds", facts.thresholds());
        facts.recipient().forEach((column, value) -> fields.put(RECIPIENT + column, value));
        fields.put("link", facts.link());
        fields.put("updates", news.rows().size());
        fields.put("open", facts.open());
        for (var severity : Severity.values())
            fields.put(
                    severity.word(),
                    news.rows().stream()
                            .filter(row -> row.severity() == severity && !row.isOver())
                            .count());
        for (var kind : UpdateKind.values())
            fields.put(
                    name(kind),
                    news.rows().stream()
                            .filter(row -> row.kinds().contains(kind))
                            .count());
        fields.put(Template.ROWS, rows(news));
        return fields;
    }

    private static String text(@Nullable String text) {
        return text == null ? "" : text;
    }

    private static List<Map<String, @Nullable Object>> rows(Extract news) {
        var rows = new ArrayList<Map<String, @Nullable Object>>();
        for (var row : news.rows().stream().limit(FIRST_ROWS).toList()) {
            var cells = new HashMap<String, @Nullable Object>();
            for (int i = 0; i < row.cells().size(); i++) {
                var column = news.columns().get(i);
                cells.put(column.name(), CellWords.of(row.cells().get(i).value(), column, news));
            }
            cells.put("severity", row.severity() == null ? "" : row.severity().word());
            rows.add(cells);
        }
        return rows;
    }
}
