package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Comparison.Operator;
import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Texts that are there but say nothing. {@code is null} does not find them, as in SQL; {@code coalesce(trim(reason), '') = ''} does, and is
 * true or false of every row.
 */
public final class EmptyTexts {
    private static final Expression NOTHING = new Expression.Literal(Type.TEXT, "");

    private EmptyTexts() {}

    /**
     * A text column that a condition asks for being missing.
     *
     * @param column its position
     * @param instead the whole condition, asking for empty texts as well
     */
    public record Asked(int column, Place place, String instead) {}

    /** Where a condition asks whether a text is missing, and would pass over one that is empty. */
    static List<Asked> in(Expression tree, Layout layout, Columns columns, TextPositions places) {
        var asked = new ArrayList<Asked>();
        Trees.nodes(tree).forEach(node -> {
            if (!(node instanceof Expression.IsNull(var operand, boolean negated))) return;
            var slot = layout.slotOf(operand);
            if (!(operand instanceof Expression.ColumnName) || slot.isEmpty()) return;
            if (columns.at(slot.getAsInt()).type() != Type.TEXT) return;
            String test = Condition.print(test(operand, negated));
            asked.add(new Asked(slot.getAsInt(), places.of(node), Condition.tidy(places.with(node, test))));
        });
        return asked;
    }

    private static Expression test(Expression column, boolean negated) {
        var trimmed = new Expression.Call("trim", List.of(column));
        var there = new Expression.Call(Functions.COALESCE, List.of(trimmed, NOTHING));
        return new Expression.Comparison(negated ? Operator.UNEQUAL : Operator.EQUAL, there, NOTHING);
    }

    /** What such a test asks about, where a comparison is one. */
    static Optional<Expression> askedOf(Expression.Comparison comparison) {
        boolean equality = comparison.operator() == Operator.EQUAL || comparison.operator() == Operator.UNEQUAL;
        if (!equality || !comparison.right().equals(NOTHING)) return Optional.empty();
        if (!(comparison.left() instanceof Expression.Call(var outer, var arguments))) return Optional.empty();
        boolean coalesce = outer.equals(Functions.COALESCE) && arguments.size() == 2;
        if (!coalesce || !arguments.getLast().equals(NOTHING)) return Optional.empty();
        if (!(arguments.getFirst() instanceof Expression.Call(var inner, var trimmed))) return Optional.empty();
        return inner.equals("trim") ? Optional.of(trimmed.getFirst()) : Optional.empty();
    }
}
