package dev.oddsentry.core.condition;

import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * Says which cells made a condition true on a row: the columns of every comparison that had to hold. Of an {@code or}, only the
 * branches that hold count; under a {@code not}, those that do not.
 */
final class Marker {
    private final Compiler compiler;
    private final Function<Expression, Set<Integer>> columnsOf;

    Marker(Compiler compiler, Function<Expression, Set<Integer>> columnsOf) {
        this.compiler = compiler;
        this.columnsOf = columnsOf;
    }

    Set<Integer> mark(List<Expression> parts, @Nullable Object[] row) {
        var marked = new LinkedHashSet<Integer>();
        parts.forEach(part -> mark(part, Boolean.TRUE, row, marked));
        return marked;
    }

    private void mark(Expression node, Boolean wanted, @Nullable Object[] row, Set<Integer> marked) {
        switch (node) {
            case Expression.And(var operands) -> operands.forEach(each -> mark(each, wanted, row, marked));
            case Expression.Or(var operands) -> operands.forEach(each -> mark(each, wanted, row, marked));
            case Expression.Not(var operand) -> mark(operand, !wanted, row, marked);
            default -> {
                if (wanted.equals(compiler.compile(node).on(row))) marked.addAll(columnsOf.apply(node));
            }
        }
    }
}
