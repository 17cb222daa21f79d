package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Objects;

/** Where each node of one tree stood; nodes are told apart by identity, since equal ones can stand in two places. */
final class TextPositions {
    private final String source;
    private final Map<Expression, Stretch> byNode = new IdentityHashMap<>();

    /** Line and column are counted only for what is told, since that reads the text from its start. */
    private record Stretch(int offset, int length) {}

    TextPositions(String source) {
        this.source = source;
    }

    void put(Expression node, int offset, int length) {
        byNode.put(node, new Stretch(offset, length));
    }

    Place of(Expression node) {
        var stretch = stretch(node);
        return Place.in(source, stretch.offset(), stretch.length());
    }

    private Stretch stretch(Expression node) {
        return Objects.requireNonNull(byNode.get(node), () -> "a node without a place: " + node);
    }

    String textOf(Expression node) {
        var stretch = stretch(node);
        return source.substring(stretch.offset(), stretch.offset() + stretch.length());
    }

    /** The whole text with another condition in place of a node. */
    String with(Expression node, String instead) {
        var stretch = stretch(node);
        return source.substring(0, stretch.offset()) + "(" + instead + ")"
                + source.substring(stretch.offset() + stretch.length());
    }

    Problem problem(String message, Expression node) {
        return Problem.error(message, "", of(node));
    }
}
