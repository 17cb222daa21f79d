package dev.oddsentry.core.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Walks over trees. */
final class Trees {
    private Trees() {}

    /** The node itself and everything under it, in the order it is written. */
    static Stream<Expression> nodes(Expression tree) {
        return Stream.concat(Stream.of(tree), children(tree).stream().flatMap(Trees::nodes));
    }

    /** True where the same values may give another answer at another slot. */
    static boolean isRelative(Expression tree) {
        return nodes(tree).anyMatch(Trees::looksAtTheSlot);
    }

    static boolean looksAtTheSlot(Expression node) {
        return node instanceof Expression.Within
                || (node instanceof Expression.Call(var name, var _) && Functions.LOOKING_AT_THE_SLOT.contains(name));
    }

    static List<Expression> children(Expression tree) {
        return switch (tree) {
            case Expression.Literal _, Expression.ColumnName _ -> List.of();
            case Expression.Negation(var operand) -> List.of(operand);
            case Expression.Arithmetic(var _, var left, var right) -> List.of(left, right);
            case Expression.Comparison(var _, var left, var right) -> List.of(left, right);
            case Expression.Between(var operand, var low, var high, var _) -> List.of(operand, low, high);
            case Expression.In(var operand, var options, var _) ->
                Stream.concat(Stream.of(operand), options.stream()).toList();
            case Expression.IsNull(var operand, var _) -> List.of(operand);
            case Expression.Within(var operand, var _, var _) -> List.of(operand);
            case Expression.Like(var operand, var pattern, var _, var _) -> List.of(operand, pattern);
            case Expression.Matches(var operand, var _, var _) -> List.of(operand);
            case Expression.Call(var _, var arguments) -> arguments;
            case Expression.Case cases -> ofCase(cases);
            case Expression.Threshold(var _, var key) -> key;
            case Expression.Aggregate(var _, var argument, var _, var _, var filter) -> present(argument, filter);
            case Expression.History(var _, var measured, var _, var target, var _) -> present(measured, target);
            case Expression.Not(var operand) -> List.of(operand);
            case Expression.And(var operands) -> operands;
            case Expression.Or(var operands) -> operands;
        };
    }

    private static List<Expression> present(@Nullable Expression... some) {
        return Stream.of(some).filter(Objects::nonNull).toList();
    }

    private static List<Expression> ofCase(Expression.Case cases) {
        var children = new ArrayList<Expression>();
        if (cases.operand() != null) children.add(cases.operand());
        cases.whens().forEach(when -> children.addAll(List.of(when.when(), when.then())));
        if (cases.otherwise() != null) children.add(cases.otherwise());
        return children;
    }
}
