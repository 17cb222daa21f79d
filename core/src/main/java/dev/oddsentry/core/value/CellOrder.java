package dev.oddsentry.core.value;

/** The order of cells that are not missing: numbers by their size, times by the clock, all else by its text. */
public final class CellOrder {
    private CellOrder() {}

    @SuppressWarnings({"unchecked", "rawtypes"})
    public static int compare(Object a, Object b) {
        if (a instanceof Number left && b instanceof Number right && Numbers.isFinite(left) && Numbers.isFinite(right))
            return Numbers.compare(left, right);
        if (a instanceof Comparable left && a.getClass() == b.getClass()) return left.compareTo(b);
        return String.valueOf(a).compareTo(String.valueOf(b));
    }
}
