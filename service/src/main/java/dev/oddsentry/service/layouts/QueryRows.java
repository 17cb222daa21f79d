package dev.oddsentry.service.layouts;

import dev.oddsentry.core.definition.LayoutDefinition;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.QueryDefinition.ColumnMeaning;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Columns;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The rows of a query as they are, laid out: nothing evaluates them, so they have no severity. */
public final class QueryRows {
    private final QueryDefinition query;
    private final Columns columns;
    private final LayoutDefinition layout;
    private final List<LayoutDefinition.Shown> shown;
    private final List<Integer> chosen;

    /** @param layout the usual for all columns in their order */
    public QueryRows(QueryDefinition query, Columns columns, LayoutDefinition layout) {
        this.query = query;
        this.columns = columns;
        this.layout = layout;
        this.shown = layout.columns().isEmpty()
                ? columns.names().stream().map(LayoutDefinition.Shown::bare).toList()
                : layout.columns();
        this.chosen = shown.stream().map(each -> columns.require(each.column())).toList();
    }

    public Extract extract(List<@Nullable Object[]> rows, ZoneId zone, Language language) {
        var groupBy = layout.groupBy().stream()
                .map(column -> ExtractRows.place(shown, column))
                .toList();
        String sheet = layout.sheet() == null ? ExtractRows.sheetOf(query.title()) : layout.sheet();
        var laidOut = new ArrayList<Extract.Row>();
        for (var row : rows)
            laidOut.add(new Extract.Row(
                    null,
                    Set.of(),
                    chosen.stream().map(index -> cell(row, index, zone)).toList()));
        if (!layout.sort().isEmpty()) laidOut.sort(RowOrder.of(layout.sort(), shown));
        return new Extract(
                zone,
                language,
                columns(),
                Extract.Arrangement.plain(groupBy, sheet, layout.rowsAs()),
                List.copyOf(laidOut));
    }

    private Extract.Cell cell(@Nullable Object[] row, int index, ZoneId zone) {
        var link = query.meaningOf(columns.at(index).name()).link();
        var cell = Extract.Cell.plain(row[index]);
        if (link == null) return cell;
        return cell.linked(link.to(name -> {
                    Object value = row[columns.require(name)];
                    return value == null ? null : CellText.of(value, zone);
                })
                .orElse(null));
    }

    private List<Extract.Column> columns() {
        return shown.stream()
                .map(each -> {
                    var column = columns.at(columns.require(each.column()));
                    var meaning = query.columns().getOrDefault(column.name(), ColumnMeaning.named(column.name()));
                    return new Extract.Column(
                            column.name(),
                            each.label() == null ? meaning.label() : each.label(),
                            meaning.unit(),
                            column.type(),
                            each.format() == null ? meaning.format() : each.format(),
                            meaning.words(),
                            each.width(),
                            each.total());
                })
                .toList();
    }
}
