package dev.oddsentry.core.condition;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Says which cells made a condition true on a row: the columns of every comparison that had to hold. Of an {@code or}, only the
 * branches that hold count, each as a whole; under a {@code not}, those that do not.
 */
final class CellHighlighter {
    private final Compiler compiler;
    private final Function<Expression, Set<Integer>> columnsOf;

    CellHighlighter(Compiler compiler, Function<Expression, Set<Integer>> columnsOf) {
        this.compiler = compiler;
        this.columnsOf = columnsOf;
    }

    Set<Integer> mark(List<Expression> parts, @Nullable Object[] row) {
        var marked = new LinkedHashSet<Integer>();
        parts.forEach(part -> mark(part, Boolean.TRUE, row, marked));
        return marked;
    }

    private void mark(Expression node, Boolean wanted, @Nullable Object[] row, Set<Integer> marked) {
        if (!isSo(node, wanted, row)) return;
        switch (node) {
            case Expression.And(var operands) -> operands.forEach(each -> mark(each, wanted, row, marked));
            case Expression.Or(var operands) -> operands.forEach(each -> mark(each, wanted, row, marked));
            case Expression.Not(var operand) -> mark(operand, !wanted, row, marked);
            default -> marked.addAll(columnsOf.apply(node));
        }
    }

    /** What was decided before it was reached may not be calculable on this row, and then has made nothing so. */
    private boolean isSo(Expression node, Boolean wanted, @Nullable Object[] row) {
        try {
            return wanted.equals(compiler.compile(node).on(row));
        } catch (RowFailureException notReached) {
            return false;
        }
    }
}
