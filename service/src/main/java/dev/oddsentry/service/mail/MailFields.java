package dev.oddsentry.service.mail;

import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.FieldFormat;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.extracts.words.SeverityWords;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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

    private static final List<String> COUNTS = List.of("count", "updates", "open");

    private MailFields() {}

    /** Figures over a column of the rows that a mail reports, by how their names begin. */
    private static final Map<String, Total> FIGURES = figures();

    private static Map<String, Total> figures() {
        var figures = new LinkedHashMap<String, Total>();
        figures.put("sum_", Total.SUM);
        figures.put("average_", Total.AVERAGE);
        figures.put("lowest_", Total.MIN);
        figures.put("highest_", Total.MAX);
        return figures;
    }

    private static final String THRESHOLD = "threshold_";

    /** The types of every field but those of columns, which stand inside the section of rows. */
    public static Map<String, Type> types() {
        var types = new LinkedHashMap<String, Type>();
        TEXTS.forEach(name -> types.put(name, Type.TEXT));
        types.put("date", Type.TIMESTAMP);
        types.put("time", Type.TIMESTAMP);
        types.put("next", Type.TIMESTAMP);
        COUNTS.forEach(name -> types.put(name, Type.NUMBER));
        for (var severity : Severity.values()) types.put(severity.word(), Type.NUMBER);
        for (var kind : UpdateKind.values()) types.put(name(kind), Type.NUMBER);
        types.put(Template.ROWS, Type.TEXT);
        return types;
    }

    /** Sum, average, lowest and highest of each column of numbers among those that a mail shows. */
    public static Map<String, Type> figuresOf(Map<String, Type> shown) {
        var types = new LinkedHashMap<String, Type>();
        shown.forEach((column, type) -> {
            if (type == Type.NUMBER) FIGURES.keySet().forEach(figure -> types.put(figure + column, Type.NUMBER));
        });
        return types;
    }

    public static Map<String, Type> ofThresholds(Collection<String> names) {
        var types = new LinkedHashMap<String, Type>();
        names.forEach(name -> types.put(THRESHOLD + name, Type.NUMBER));
        return types;
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
            Map<String, @Nullable Object> thresholdValues,
            String link,
            long open) {}

    /** The fields of a personal copy's row. */
    public static Map<String, Type> ofRecipient(List<String> columns) {
        var types = new LinkedHashMap<String, Type>();
        columns.forEach(column -> types.put(RECIPIENT + column, Type.TEXT));
        return types;
    }

    public static Map<String, @Nullable Object> of(Facts facts, Extract news) {
        var fields = new HashMap<String, @Nullable Object>();
        var there = facts.slot().atZone(facts.zone());
        fields.put("title", facts.title());
        fields.put("rule", facts.rule());
        fields.put("owner", facts.owner());
        fields.put("date", there.toLocalDate().toString());
        fields.put("time", TIME.format(there));
        FieldFormat.allow(fields, "date", there, news.language());
        FieldFormat.allow(fields, "time", there, news.language());
        var next = facts.next() == null ? null : facts.next().atZone(facts.zone());
        fields.put("next", next == null ? "" : next.toLocalDate() + " " + TIME.format(next));
        FieldFormat.allow(fields, "next", next, news.language());
        fields.put("split", text(facts.split()));
        fields.put("copy", text(facts.copy()));
        fields.put("greeting", text(facts.greeting()));
        fields.put("because", facts.because());
        fields.put("thresholds", facts.thresholds());
        facts.recipient().forEach((column, value) -> fields.put(RECIPIENT + column, value));
        fields.put("link", facts.link());
        number(fields, "count", news.rows().size(), news.language());
        number(fields, "updates", news.rows().size(), news.language());
        number(fields, "open", facts.open(), news.language());
        facts.thresholdValues().forEach((name, value) -> number(fields, THRESHOLD + name, value, news.language()));
        figures(fields, news);
        for (var severity : Severity.values())
            number(
                    fields,
                    severity.word(),
                    news.rows().stream()
                            .filter(row -> row.severity() == severity && !row.isOver())
                            .count(),
                    news.language());
        for (var kind : UpdateKind.values())
            number(
                    fields,
                    name(kind),
                    news.rows().stream()
                            .filter(row -> row.kinds().contains(kind))
                            .count(),
                    news.language());
        fields.put(Template.ROWS, rows(news));
        return fields;
    }

    private static void number(
            Map<String, @Nullable Object> fields, String name, @Nullable Object value, Language language) {
        // A count of zero leaves its section out, so it stays a number.
        boolean whole = value instanceof Integer || value instanceof Long;
        fields.put(name, value == null ? "" : whole ? value : CellWords.number(value, language));
        FieldFormat.allow(fields, name, value, language);
    }

    private static void figures(Map<String, @Nullable Object> fields, Extract news) {
        var counted = news.rows().stream().filter(row -> !row.isOver()).toList();
        for (int i = 0; i < news.columns().size(); i++) {
            var column = news.columns().get(i);
            if (column.type() != Type.NUMBER) continue;
            int place = i;
            var cells =
                    counted.stream().map(row -> row.cells().get(place).value()).toList();
            FIGURES.forEach(
                    (figure, total) -> number(fields, figure + column.name(), total.of(cells), news.language()));
        }
    }

    private static String text(@Nullable String text) {
        return text == null ? "" : text;
    }

    private static List<Map<String, @Nullable Object>> rows(Extract news) {
        var rows = new ArrayList<Map<String, @Nullable Object>>();
        var severities = SeverityWords.of(Phrases.in(news.language()), news);
        for (var row : news.rows().stream().limit(FIRST_ROWS).toList()) {
            var cells = new HashMap<String, @Nullable Object>();
            for (int i = 0; i < row.cells().size(); i++) {
                var column = news.columns().get(i);
                Object value = row.cells().get(i).value();
                cells.put(column.name(), CellWords.of(value, column, news));
                FieldFormat.allow(
                        cells,
                        column.name(),
                        value instanceof Instant instant && CellWords.isFinite(instant)
                                ? instant.atZone(news.zone())
                                : value,
                        news.language());
            }
            cells.put("severity", row.severity() == null ? "" : severities.word(row.severity()));
            rows.add(cells);
        }
        return rows;
    }
}
