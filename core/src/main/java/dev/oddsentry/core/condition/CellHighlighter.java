package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Comparison.Operator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Says which cells made a condition true on a row: the columns of every comparison that had to hold. Of an {@code or}, only the
 * branches that hold count, each as a whole; under a {@code not}, those that do not. What only leaves rows out, such as
 * {@code status <> 'cancelled'}, decided nothing where something else did.
 */
final class CellHighlighter {
    private final Compiler compiler;
    private final Function<Expression, Set<Integer>> columnsOf;

    CellHighlighter(Compiler compiler, Function<Expression, Set<Integer>> columnsOf) {
        this.compiler = compiler;
        this.columnsOf = columnsOf;
    }

    Set<Integer> mark(List<Expression> parts, @Nullable Object[] row) {
        var found = new Found(new LinkedHashSet<>(), new LinkedHashSet<>());
        parts.forEach(part -> mark(part, Boolean.TRUE, row, found));
        return found.decided.isEmpty() ? found.notLeftOut : found.decided;
    }

    /** @param notLeftOut the columns of what would have left the row out */
    private record Found(Set<Integer> decided, Set<Integer> notLeftOut) {}

    private void mark(Expression node, Boolean wanted, @Nullable Object[] row, Found found) {
        if (!isSo(node, wanted, row)) return;
        switch (node) {
            case Expression.And(var operands) -> operands.forEach(each -> mark(each, wanted, row, found));
            case Expression.Or(var operands) -> operands.forEach(each -> mark(each, wanted, row, found));
            case Expression.Not(var operand) -> mark(operand, !wanted, row, found);
            default -> (leavesOut(node, wanted) ? found.notLeftOut : found.decided).addAll(columnsOf.apply(node));
        }
    }

    /** Whether it says what a value is not: {@code <>} a value, {@code not in}, {@code is not null}, or the opposite under a {@code not}. */
    private static boolean leavesOut(Expression node, boolean wanted) {
        return switch (node) {
            case Expression.Comparison(var operator, var left, var right) ->
                // Two columns that differ are what is looked for.
                (left instanceof Expression.Literal || right instanceof Expression.Literal)
                        && operator == (wanted ? Operator.UNEQUAL : Operator.EQUAL);
            case Expression.In in -> in.negated() == wanted;
            case Expression.IsNull isNull -> isNull.negated() == wanted;
            case Expression.Like like -> like.negated() == wanted;
            case Expression.Matches matches -> matches.negated() == wanted;
            default -> false;
        };
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
