package dev.oddsentry.core.value;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;

/** The columns of a result, in order, found by name: exactly if quoted, else without regard to case where that is unambiguous. */
public final class Columns {
    private final List<Column> inOrder;
    private final Map<String, Integer> byName = new LinkedHashMap<>();

    public Columns(List<Column> inOrder) {
        this.inOrder = List.copyOf(inOrder);
        for (int i = 0; i < inOrder.size(); i++) {
            if (byName.putIfAbsent(inOrder.get(i).name(), i) != null) {
                throw new IllegalArgumentException(
                        "two columns are named \"" + inOrder.get(i).name() + "\"");
            }
        }
    }

    public static Columns of(Column... columns) {
        return new Columns(List.of(columns));
    }

    public List<Column> inOrder() {
        return inOrder;
    }

    public Column at(int index) {
        return inOrder.get(index);
    }

    public int size() {
        return inOrder.size();
    }

    public List<String> names() {
        return List.copyOf(byName.keySet());
    }

    public OptionalInt indexOf(String name, boolean quoted) {
        Integer exact = byName.get(name);
        if (exact != null) return OptionalInt.of(exact);
        if (quoted) return OptionalInt.empty();
        var matches = new ArrayList<Integer>();
        byName.forEach((known, index) -> {
            if (known.equalsIgnoreCase(name)) matches.add(index);
        });
        return matches.size() == 1 ? OptionalInt.of(matches.getFirst()) : OptionalInt.empty();
    }

    /** The index of a column that is known to be there, since it was checked before. */
    public int require(String name) {
        return indexOf(name, false)
                .orElseThrow(() -> new IllegalStateException("no column \"" + name + "\" among " + names()));
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Columns that && inOrder.equals(that.inOrder);
    }

    @Override
    public int hashCode() {
        return inOrder.hashCode();
    }

    @Override
    public String toString() {
        return inOrder.toString();
    }
}
