package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Outline;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Rows of a mail as a list: two lines for each finding, one for a row that nothing evaluated. */
record MailList(List<Line> lines, @Nullable String more) {
    /** One of the three. */
    record Line(
            @Nullable Item item,
            @Nullable String group,
            @Nullable String total) {}

    /**
     * @param severity with its sign and the kinds of update; null for a row that nothing evaluated
     * @param names the cells that name the finding
     * @param link to the finding's page; null for none
     */
    record Item(
            @Nullable String severity,
            String colour,
            List<Cell> names,
            List<Cell> details,
            @Nullable String link) {
        /** @return whether there is a second line */
        public boolean second() {
            return !details.isEmpty() || link != null;
        }
    }

    /** @param last whether no comma follows */
    record Cell(
            String text,
            String was,
            boolean marked,
            boolean first,
            boolean last,
            @Nullable String cellLink) {}

    /** @param most how many rows have lines; all are counted */
    static MailList of(RowWords words, Extract extract, int most, String more) {
        var lines = new ArrayList<Line>();
        for (var line : Outline.of(extract, most))
            lines.add(
                    switch (line) {
                        case Outline.RowLine(var row) -> new Line(item(words, extract, row), null, null);
                        case Outline.GroupLine(var values, int rows) ->
                            new Line(null, words.group(extract, values) + ": " + rows, null);
                        case Outline.TotalLine total -> new Line(null, null, words.total(extract, total));
                    });
        return new MailList(lines, more.isEmpty() ? null : more);
    }

    private static Item item(RowWords words, Extract extract, Extract.Row row) {
        boolean plain = row.severity() == null;
        int names = plain ? 0 : RowWords.titleColumns(extract);
        var cells = new ArrayList<Cell>();
        int columns = extract.columns().size();
        for (int i = 0; i < columns; i++)
            cells.add(new Cell(
                    i < names ? words.value(extract, row, i) : words.labelled(extract, row, i),
                    words.was(extract, row, i),
                    row.cells().get(i).marked(),
                    i == 0,
                    i == columns - 1,
                    row.cells().get(i).link()));
        return new Item(
                plain ? null : words.severityAndKinds(extract, row),
                words.severities(extract).colour(row),
                cells.subList(0, names),
                cells.subList(names, columns),
                row.link());
    }
}
