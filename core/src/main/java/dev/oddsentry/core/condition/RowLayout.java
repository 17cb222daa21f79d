package dev.oddsentry.core.condition;

import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import java.util.OptionalInt;

/** Of a query's row: every column name has its place, all else is calculated. */
record RowLayout(Columns columns) implements Layout {
    @Override
    public OptionalInt slotOf(Expression node) {
        return node instanceof Expression.ColumnName(var name, boolean quoted)
                ? columns.indexOf(name, quoted)
                : OptionalInt.empty();
    }

    @Override
    public boolean isUuid(Expression node) {
        var slot = slotOf(node);
        return slot.isPresent() && columns.at(slot.getAsInt()).nature() == Column.Nature.UUID;
    }
}
