package dev.oddsentry.service.layouts;

import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.LayoutDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleEvaluator;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Numbers;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** Rows of a result, or of memory, as rows of the rule's extract: the chosen columns in their order, marked. */
public final class ExtractRows {
    private static final int LONGEST_SHEET = 31;

    private final RuleEvaluator evaluator;
    private final Columns resultColumns;
    private final List<LayoutDefinition.Shown> shown;
    private final List<Integer> chosen;
    private final RuleLabels labels;
    private final LayoutDefinition layout;
    private final String title;
    private final ZoneId zone;
    private final Language language;
    private final int firstReckoned;
    private final boolean plain;

    /** @param usual the names of the columns that are shown unless the layout says which */
    public ExtractRows(RuleDefinition rule, RuleLabels labels, RuleEvaluator evaluator, List<String> usual) {
        this.evaluator = evaluator;
        this.labels = labels;
        this.resultColumns = evaluator.columns();
        this.layout = rule.delivery().layout();
        this.title = rule.title();
        this.zone = rule.zone();
        this.language = rule.delivery().texts().language();
        this.shown = layout.columns().isEmpty()
                ? usual.stream().map(LayoutDefinition.Shown::bare).toList()
                : layout.columns();
        this.chosen =
                shown.stream().map(each -> resultColumns.require(each.column())).toList();
        this.firstReckoned =
                rule.groups() == null ? Integer.MAX_VALUE : rule.groups().per().size();
        this.plain = rule.isPlainReport();
    }

    private ExtractRows(ExtractRows same, Language language, LayoutDefinition layout) {
        this.evaluator = same.evaluator;
        this.labels = same.labels;
        this.resultColumns = same.resultColumns;
        this.layout = layout;
        this.title = same.title;
        this.zone = same.zone;
        this.language = language;
        this.shown = same.shown;
        this.chosen = same.chosen;
        this.firstReckoned = same.firstReckoned;
        this.plain = same.plain;
    }

    /** The same in the language of a message, and in the form that its rows have there. */
    public ExtractRows as(DeliveryDefinition delivery) {
        var form = delivery.layout().rowsAs();
        return delivery.texts().language() == language && form == layout.rowsAs()
                ? this
                : new ExtractRows(this, delivery.texts().language(), layout.withRowsAs(form));
    }

    public List<Extract.Column> columns() {
        return shown.stream()
                .map(each -> {
                    var column = resultColumns.at(resultColumns.require(each.column()));
                    var label = labels.column(column.name());
                    var meaning = labels.meaning(column.name());
                    return new Extract.Column(
                            column.name(),
                            each.label() == null ? label.text() : each.label(),
                            label.unit(),
                            column.type(),
                            each.format() == null ? meaning.format() : each.format(),
                            meaning.words(),
                            each.width(),
                            each.total());
                })
                .toList();
    }

    /** The rows as an extract, in the layout's order. */
    public Extract extract(List<Extract.Row> rows) {
        return inOrder(rows, order());
    }

    /** All rows of the query, in its order unless the layout has another. */
    public Extract wholeReport(List<Extract.Row> rows) {
        return inOrder(rows, layout.sort().isEmpty() ? RowOrder.OF_THE_QUERY : order());
    }

    /** {@code true} if the layout has an order of its own. */
    public boolean hasOrder() {
        return !layout.sort().isEmpty();
    }

    private Extract inOrder(List<Extract.Row> rows, Comparator<Extract.Row> order) {
        var groupBy =
                layout.groupBy().stream().map(column -> place(shown, column)).toList();
        String sheet = layout.sheet() == null ? sheetOf(title) : layout.sheet();
        var arrangement = plain
                ? Extract.Arrangement.plain(groupBy, sheet, layout.rowsAs())
                : new Extract.Arrangement(groupBy, layout.extraColumns(), sheet, layout.rowsAs())
                        .with(layout.severities());
        return new Extract(
                zone,
                language,
                columns(),
                arrangement,
                rows.stream().sorted(order).toList());
    }

    static String sheetOf(String title) {
        String name = title.replaceAll("[\\[\\]:*?/\\\\\\p{Cntrl}]", " ").strip();
        name = name.length() > LONGEST_SHEET ? name.substring(0, LONGEST_SHEET).strip() : name;
        return name.isEmpty() || name.startsWith("'") || name.endsWith("'") ? "Exceptions" : name;
    }

    static int place(List<LayoutDefinition.Shown> shown, String column) {
        for (int i = 0; i < shown.size(); i++) if (shown.get(i).column().equals(column)) return i;
        throw new IllegalStateException("not shown: " + column);
    }

    /** The worst first unless the layout says otherwise; what is missing comes last. */
    private Comparator<Extract.Row> order() {
        if (!layout.sort().isEmpty()) return RowOrder.of(layout.sort(), shown);
        return plain ? RowOrder.OF_THE_QUERY : RowOrder.worstFirst(evaluator.worseOrder(), chosen);
    }

    /** The worst first, by all columns of the result. */
    public Comparator<EvaluatedRow> worstFirst() {
        return RowOrder.worstFirst(evaluator.worseOrder());
    }

    /** A calculated value that has no end, such as an average, is shortened; what is exact and short stays as it is. */
    private @Nullable Object shown(int index, @Nullable Object value) {
        return index < firstReckoned ? value : Numbers.readable(value);
    }

    /** @param was the cells as last reported, by column name; empty if never */
    public Extract.Row present(
            List<? extends @Nullable Object> row,
            @Nullable Severity severity,
            Set<UpdateKind> kinds,
            Map<String, @Nullable Object> was) {
        // A plain report says nothing of why a row is in it.
        Set<Integer> marks = plain || severity == null ? Set.of() : evaluator.marks(row);
        var cells = new ArrayList<Extract.Cell>();
        for (int index : chosen) {
            Object value = shown(index, row.get(index));
            String name = resultColumns.at(index).name();
            Object before = shown(index, was.get(name));
            boolean differs = was.containsKey(name) && !Objects.equals(before, value);
            cells.add(new Extract.Cell(
                            value,
                            marks.contains(index),
                            !differs ? null : before == null ? Extract.Cell.WAS_MISSING : before)
                    .linked(link(name, column -> row.get(resultColumns.require(column)))));
        }
        return new Extract.Row(plain ? null : severity, kinds, cells);
    }

    /** Where a value of a column leads; null for nowhere. @param row its values by column */
    private @Nullable String link(String column, Function<String, @Nullable Object> row) {
        // A group has no single row, and so not every column that a link may name.
        return labels.link(
                column, each -> resultColumns.indexOf(each, true).isPresent() ? row.apply(each) : null, zone);
    }

    /** A finding that is no longer in the result, from its last row. */
    public Extract.Row past(Severity severity, Set<UpdateKind> kinds, Map<String, @Nullable Object> lastRow) {
        var cells = new ArrayList<Extract.Cell>();
        for (int index : chosen) {
            String name = resultColumns.at(index).name();
            cells.add(Extract.Cell.plain(shown(index, lastRow.get(name))).linked(link(name, lastRow::get)));
        }
        return new Extract.Row(severity, kinds, cells);
    }

    /** A finding that is still so, from its last row. @param was as in {@link #present} */
    public Extract.Row remembered(
            Severity severity,
            Set<UpdateKind> kinds,
            Map<String, @Nullable Object> lastRow,
            Map<String, @Nullable Object> was) {
        var row = new ArrayList<@Nullable Object>();
        for (var column : resultColumns.inOrder()) row.add(lastRow.get(column.name()));
        try {
            return present(row, severity, kinds, was);
        } catch (RowFailureException | ClassCastException otherNow) {
            // The row is from before an edit of the query or the conditions, which do not fit it any more.
            return past(severity, kinds, lastRow);
        }
    }

    /** A row of the whole report, exception or not. @param kinds empty unless it is reported */
    public Extract.Row ofReport(EvaluatedRow row, Set<UpdateKind> kinds) {
        return present(row.row(), row.severity(), kinds, Map.of());
    }

    /** An exception that is not news. */
    public Extract.Row standing(EvaluatedRow exception) {
        return present(exception.row(), Objects.requireNonNull(exception.severity()), Set.of(), Map.of());
    }
}
