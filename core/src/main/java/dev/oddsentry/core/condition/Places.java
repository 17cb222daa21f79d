package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.IdentityHashMap;
import java.util.Map;
import java.util.Objects;

/** Where each node of one tree stood; nodes are told apart by identity, since equal ones can stand in two places. */
final class Places {
    private final String source;
    private final Map<Expression, Place> byNode = new IdentityHashMap<>();

    Places(String source) {
        this.source = source;
    }

    void put(Expression node, int offset, int length) {
        byNode.put(node, Place.in(source, offset, length));
    }

    Place of(Expression node) {
        return Objects.requireNonNull(byNode.get(node), () -> "a node without a place: " + node);
    }

    String textOf(Expression node) {
        Place place = of(node);
        return source.substring(place.offset(), place.offset() + place.length());
    }

    Problem problem(String message, Expression node) {
        return Problem.error(message, "", of(node));
    }
}
