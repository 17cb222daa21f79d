package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Outline;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.words.Phrases;
import dev.oddsentry.extracts.words.SeverityWords;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** Rows and their values in words, as the HTML and the text of a mail share them. */
final class RowWords {
    private static final int MOST_TITLE_COLUMNS = 2;

    private final Phrases phrases;
    private final int year;

    /** @param year the report's, which times leave out; 0 for none */
    RowWords(Phrases phrases, int year) {
        this.phrases = phrases;
        this.year = year;
    }

    private String word(UpdateKind kind) {
        return phrases.of("kind." + kind.name());
    }

    String labelled(Extract extract, Extract.Row row, int index) {
        String value = value(extract, row, index);
        return index < titleColumns(extract)
                ? value
                : extract.columns().get(index).label() + " " + value;
    }

    /** The first columns of the layout name a finding, so they stand without labels; a number without a unit names nothing. */
    static int titleColumns(Extract extract) {
        int names = 0;
        while (names < MOST_TITLE_COLUMNS
                && names < extract.columns().size()
                && namesSomething(extract.columns().get(names))) names++;
        return names;
    }

    private static boolean namesSomething(Extract.Column column) {
        return column.type() != Type.NUMBER || column.unit() != null || column.hasWords();
    }

    String kinds(Extract.Row row) {
        if (row.kinds().isEmpty()) return word(UpdateKind.REMINDER);
        // Whatever got worse, eased or came back has other values too, which the cells show.
        boolean onlyChanged = row.kinds().equals(Set.of(UpdateKind.CHANGED));
        return row.kinds().stream()
                .sorted()
                .filter(kind -> onlyChanged || kind != UpdateKind.CHANGED)
                .map(this::word)
                .collect(Collectors.joining(", "));
    }

    /**
     * {@code , open since Mon 23 Nov 17:35}; the empty text for what begins with this report.
     *
     * @param behindKinds whether it follows the kinds of update, which may say "still open" already
     */
    String lasted(Extract extract, Extract.Row row, boolean behindKinds) {
        return lasted(extract, row, behindKinds, false);
    }

    /** @param together whether the time is not to break over lines */
    String lasted(Extract extract, Extract.Row row, boolean behindKinds, boolean together) {
        if (row.since() == null || row.kinds().contains(UpdateKind.MOVED)) return "";
        String time =
                timestamp(row.since().atZone(extract.zone()).toLocalDateTime().truncatedTo(ChronoUnit.MINUTES));
        String from = together ? time.replace(' ', '\u00a0') : time;
        boolean saidOpen = behindKinds && (row.kinds().isEmpty() || row.kinds().equals(Set.of(UpdateKind.REMINDER)));
        if (saidOpen) return phrases.of("lasted.still", from);
        return phrases.of(row.isOver() ? "lasted.over" : "lasted.open", from);
    }

    SeverityWords severities(Extract extract) {
        return SeverityWords.of(phrases, extract);
    }

    /** {@code ▲ critical, worsened, open since Mon 23 Nov 17:35}. */
    String severityAndKinds(Extract extract, Extract.Row row) {
        if (row.severity() == null) return "";
        return severities(extract).signAndWord(row.severity()) + ", " + kinds(row) + lasted(extract, row, true);
    }

    String value(Extract extract, Extract.Row row, int index) {
        return value(row.cells().get(index).value(), extract.columns().get(index), extract);
    }

    String was(Extract extract, Extract.Row row, int index) {
        Object was = row.cells().get(index).was();
        if (was == null) return "";
        Object before = was == Extract.Cell.WAS_MISSING ? null : was;
        return phrases.of("was", value(before, extract.columns().get(index), extract));
    }

    /** Without the unit, as {@link #bare}. */
    String bareWas(Extract extract, Extract.Row row, int index) {
        Object was = row.cells().get(index).was();
        if (was == null) return "";
        Object before = was == Extract.Cell.WAS_MISSING ? null : was;
        return phrases.of("was", bare(before, extract.columns().get(index), extract));
    }

    String value(@Nullable Object value, Extract.Column column, Extract extract) {
        if (value == null) return phrases.of("missing");
        boolean inShort = column.format() == null && !column.hasWords();
        String text = switch (value) {
            case Instant instant
            when inShort && CellWords.isFinite(instant) ->
                timestamp(instant.atZone(extract.zone()).toLocalDateTime());
            case LocalDateTime local
            when inShort && !local.equals(LocalDateTime.MAX) && !local.equals(LocalDateTime.MIN) -> timestamp(local);
            case LocalDate date
            when inShort && !date.equals(LocalDate.MAX) && !date.equals(LocalDate.MIN) ->
                phrases.time("date.cell.date", date);
            default -> Wording.oneLine(CellWords.of(value, column, extract));
        };
        return column.unit() == null ? text : text + " " + column.unit();
    }

    /** Without the unit, which a heading has. */
    String bare(@Nullable Object value, Extract.Column column, Extract extract) {
        String text = value(value, column, extract);
        return value != null && column.unit() != null
                ? text.substring(0, text.length() - column.unit().length() - 1)
                : text;
    }

    /** With its year unless that is the report's, and with the seconds that are there. */
    private String timestamp(LocalDateTime local) {
        String day = local.getYear() == year ? "date.cell.day" : "date.cell.date";
        return phrases.time(day, local) + " " + CellText.of(local.toLocalTime(), ZoneOffset.UTC);
    }

    /** Numbers and totals in place of rows: a line for each group, and one for all. */
    List<String> figures(Extract extract) {
        var lines = new ArrayList<String>();
        for (var line : Outline.of(extract)) {
            if (line instanceof Outline.GroupLine(var values, int rows) && !extract.hasTotals())
                lines.add(group(extract, values) + ": " + rows);
            if (line instanceof Outline.TotalLine total) lines.add(total(extract, total));
        }
        return lines;
    }

    /** The values that a group's rows have in common. */
    String group(Extract extract, List<@Nullable Object> values) {
        var groupBy = extract.arrangement().groupBy();
        return IntStream.range(0, values.size())
                .mapToObj(i -> value(values.get(i), extract.columns().get(groupBy.get(i)), extract))
                .collect(Collectors.joining(", "));
    }

    /** {@code Holm – Varsund: Late by, sum 84 min}. */
    String total(Extract extract, Outline.TotalLine total) {
        var parts = new ArrayList<String>();
        for (int i = 0; i < total.totals().size(); i++) {
            Object value = total.totals().get(i);
            var column = extract.columns().get(i);
            if (value == null || column.total() == null) continue;
            String words = CellWords.ofTotal(value, column, extract);
            boolean withUnit = column.unit() != null && column.total() != Total.COUNT;
            parts.add(
                    column.label() + ", " + phrases.of("total." + column.total().name()) + " " + words
                            + (withUnit ? " " + column.unit() : ""));
        }
        String of = total.values().isEmpty()
                ? phrases.of(total.reported() ? "total.reported" : "total.all", total.rows())
                : group(extract, total.values());
        return of + ": " + String.join("; ", parts);
    }

    String inOneLine(Extract extract, Extract.Row row) {
        return IntStream.range(0, extract.columns().size())
                .mapToObj(index -> labelled(extract, row, index))
                .collect(Collectors.joining(", "));
    }
}
