package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.judging.RuleLabels;
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
final class ExtractRows {
    private final Reckoned reckoned;
    private final Columns resultColumns;
    private final List<Integer> chosen;
    private final RuleLabels labels;
    private final int firstReckoned;

    ExtractRows(RuleDefinition rule, RuleLabels labels, Reckoned reckoned) {
        this.reckoned = reckoned;
        this.labels = labels;
        this.resultColumns = reckoned.columns();
        var names = rule.delivery().columns().isEmpty()
                ? reckoned.shown()
                : rule.delivery().columns();
        this.chosen = names.stream().map(resultColumns::require).toList();
        this.firstReckoned =
                rule.groups() == null ? Integer.MAX_VALUE : rule.groups().per().size();
    }

    List<Extract.Column> columns() {
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
    Extract.Row present(Sighting sighting, Told.Item item, Map<String, @Nullable Object> was) {
        Set<Integer> marks = reckoned.judge().marks(sighting.row());
        var cells = new ArrayList<Extract.Cell>();
        for (int index : chosen) {
            Object value = shown(index, sighting.row().get(index));
            Object before = shown(index, was.get(resultColumns.at(index).name()));
            boolean differs = before != null && !before.equals(value);
            cells.add(new Extract.Cell(value, marks.contains(index), differs ? before : null));
        }
        return new Extract.Row(item.severity(), item.kinds(), cells);
    }

    /** A finding that is no longer in the result, from its last row. */
    Extract.Row past(Told.Item item, Map<String, @Nullable Object> lastRow) {
        var cells = new ArrayList<Extract.Cell>();
        for (int index : chosen)
            cells.add(Extract.Cell.plain(
                    shown(index, lastRow.get(resultColumns.at(index).name()))));
        return new Extract.Row(item.severity(), item.kinds(), cells);
    }

    /** An exception that is not news. */
    Extract.Row standing(Sighting sighting) {
        Set<Integer> marks = reckoned.judge().marks(sighting.row());
        var cells = new ArrayList<Extract.Cell>();
        for (int index : chosen)
            cells.add(new Extract.Cell(shown(index, sighting.row().get(index)), marks.contains(index), null));
        return new Extract.Row(Objects.requireNonNull(sighting.severity()), Set.of(), cells);
    }
}
