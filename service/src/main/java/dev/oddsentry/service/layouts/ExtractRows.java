package dev.oddsentry.service.layouts;

import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.judging.RuleJudge;
import dev.oddsentry.core.judging.RuleLabels;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Numbers;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Rows of a result, or of memory, as rows of the rule's extract: the chosen columns in their order, marked. */
public final class ExtractRows {
    private final RuleJudge judge;
    private final Columns resultColumns;
    private final List<Integer> chosen;
    private final RuleLabels labels;
    private final int firstReckoned;

    /** @param shown the names of the columns that are shown unless the rule says which */
    public ExtractRows(RuleDefinition rule, RuleLabels labels, RuleJudge judge, List<String> shown) {
        this.judge = judge;
        this.labels = labels;
        this.resultColumns = judge.columns();
        var names =
                rule.delivery().columns().isEmpty() ? shown : rule.delivery().columns();
        this.chosen = names.stream().map(resultColumns::require).toList();
        this.firstReckoned =
                rule.groups() == null ? Integer.MAX_VALUE : rule.groups().per().size();
    }

    public List<Extract.Column> columns() {
        return chosen.stream()
                .map(index -> {
                    var column = resultColumns.at(index);
                    var label = labels.column(column.name());
                    return new Extract.Column(column.name(), label.text(), label.unit(), column.type());
                })
                .toList();
    }

    /** A reckoned value that has no end, such as an average, is shortened; what is exact and short stays as it is. */
    private @Nullable Object shown(int index, @Nullable Object value) {
        return index < firstReckoned ? value : Numbers.readable(value);
    }

    /** @param was the cells as last reported, by column name; empty if never */
    public Extract.Row present(
            List<? extends @Nullable Object> row,
            Severity severity,
            Set<NewsKind> kinds,
            Map<String, @Nullable Object> was) {
        Set<Integer> marks = judge.marks(row);
        var cells = new ArrayList<Extract.Cell>();
        for (int index : chosen) {
            Object value = shown(index, row.get(index));
            Object before = shown(index, was.get(resultColumns.at(index).name()));
            boolean differs = before != null && !before.equals(value);
            cells.add(new Extract.Cell(value, marks.contains(index), differs ? before : null));
        }
        return new Extract.Row(severity, kinds, cells);
    }

    /** A finding that is no longer in the result, from its last row. */
    public Extract.Row past(Severity severity, Set<NewsKind> kinds, Map<String, @Nullable Object> lastRow) {
        var cells = new ArrayList<Extract.Cell>();
        for (int index : chosen)
            cells.add(Extract.Cell.plain(
                    shown(index, lastRow.get(resultColumns.at(index).name()))));
        return new Extract.Row(severity, kinds, cells);
    }

    /** A finding that is still so, from its last row. @param was as in {@link #present} */
    public Extract.Row remembered(
            Severity severity,
            Set<NewsKind> kinds,
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

    /** An exception that is not news. */
    public Extract.Row standing(Sighting exception) {
        return present(exception.row(), Objects.requireNonNull(exception.severity()), Set.of(), Map.of());
    }
}
