package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Comparison.Operator;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * By which columns one exception is worse than another: those that a condition compares with a bound, {@code delay_min > 15} or
 * {@code due older than 3 days}. The further beyond the bound, the worse.
 *
 * @param column its position
 * @param largestFirst whether a larger value is worse
 */
public record WorseOrder(int column, boolean largestFirst) {

    static List<WorseOrder> of(Expression tree, Layout layout, Map<Expression, Type> types) {
        var found = new ArrayList<WorseOrder>();
        collect(tree, true, layout, types, found);
        return found;
    }

    private static void collect(
            Expression node, boolean wanted, Layout layout, Map<Expression, Type> types, List<WorseOrder> found) {
        switch (node) {
            case Expression.And(var operands) -> operands.forEach(each -> collect(each, wanted, layout, types, found));
            case Expression.Or(var operands) -> operands.forEach(each -> collect(each, wanted, layout, types, found));
            case Expression.Not(var operand) -> collect(operand, !wanted, layout, types, found);
            case Expression.Comparison(var operator, var left, var right) -> {
                Boolean larger = largerIsWorse(operator, wanted);
                // Of texts none is worse than another.
                if (larger == null || types.get(left) == Type.TEXT) return;
                if (layout.slotOf(left).isPresent())
                    add(found, layout.slotOf(left).getAsInt(), larger);
                else layout.slotOf(right).ifPresent(column -> add(found, column, !larger));
            }
            // What is long past, or due soonest.
            case Expression.Within(var operand, var window, boolean negated)
            when negated != wanted && (window instanceof Window.OlderThan || window instanceof Window.Next) ->
                layout.slotOf(operand).ifPresent(column -> add(found, column, false));
            default -> {}
        }
    }

    private static void add(List<WorseOrder> found, int column, boolean largestFirst) {
        if (found.stream().noneMatch(each -> each.column == column)) found.add(new WorseOrder(column, largestFirst));
    }

    private static @Nullable Boolean largerIsWorse(Operator operator, boolean wanted) {
        return switch (operator) {
            case MORE, AT_LEAST -> wanted;
            case LESS, AT_MOST -> !wanted;
            case EQUAL, UNEQUAL -> null;
        };
    }
}
