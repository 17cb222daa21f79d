package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Aggregate;
import dev.oddsentry.core.condition.Expression.History;
import dev.oddsentry.core.value.Type;

/** The type checker's part for thresholds, aggregates and history: whether they may stand where they stand, and fit. */
final class MeasureTypes {
    private final TypeChecker checker;

    MeasureTypes(TypeChecker checker) {
        this.checker = checker;
    }

    Type of(Expression.Threshold node) {
        var keyTypes = node.key().stream().map(checker::check).toList();
        var thresholds = checker.scope().thresholds();
        var table = thresholds.find(node.name());
        if (table.isEmpty()) {
            checker.refuse("there is no threshold \"" + node.name() + "\"", node, thresholds.names(), node.name());
            return Type.NUMBER;
        }
        var key = table.get().key();
        if (key.size() != keyTypes.size()) {
            String right = key.isEmpty()
                    ? "threshold('" + node.name() + "')"
                    : "threshold('" + node.name() + "', " + String.join(", ", key) + ")";
            checker.refuse(
                    key.isEmpty()
                            ? "this threshold has one value for all; write " + right
                            : "this threshold is kept by " + String.join(", ", key) + "; write " + right,
                    node);
        }
        return Type.NUMBER;
    }

    Type of(Aggregate node) {
        boolean inside = checker.isInsideAggregate();
        if (checker.scope().place() != Scope.Place.GROUP || inside) {
            checker.refuse(
                    inside
                            ? "an aggregate cannot contain another"
                            : node.kind().word()
                                    + " is over many rows; a rule that has per: looks at groups of them (per: [] is the whole result)",
                    node);
            return Type.NULL;
        }
        return checker.insideAggregate(() -> checkedInside(node));
    }

    private Type checkedInside(Aggregate node) {
        if (node.filter() != null) checker.expect(node.filter(), Type.TRUTH, "filter (where …) asks for a condition");
        if (node.argument() == null) return Type.NUMBER;
        return switch (node.kind()) {
            case COUNT -> {
                Type counted = checker.check(node.argument());
                if (node.distinct() && counted == Type.BYTES) checker.refuse("bytes are not compared", node.argument());
                yield Type.NUMBER;
            }
            case SHARE -> {
                checker.expect(node.argument(), Type.TRUTH, "share(where …) asks for a condition");
                yield Type.NUMBER;
            }
            case SUM, AVG, MEDIAN, PERCENTILE, STDDEV -> {
                checker.expect(node.argument(), Type.NUMBER, node.kind().word() + " needs a number");
                yield Type.NUMBER;
            }
            case MIN, MAX -> {
                Type type = checker.check(node.argument());
                if (type == Type.BYTES || type == Type.TRUTH)
                    checker.refuse("no lowest and no highest of " + type.word(), node.argument());
                yield type;
            }
        };
    }

    Type of(History node) {
        if (checker.scope().place() != Scope.Place.GROUP || checker.isInsideAggregate()) {
            checker.refuse(
                    node.kind().word()
                            + " is over what earlier checks measured of a group; a rule that has per: measures groups (per: [] is the whole result)",
                    node);
            return Type.NULL;
        }
        checker.expect(node.measured(), Type.NUMBER, node.kind().word() + " needs a measured number");
        boolean measures =
                Trees.nodes(node.measured()).anyMatch(each -> each instanceof Aggregate || checker.isMeasure(each));
        boolean nested = Trees.nodes(node.measured()).anyMatch(History.class::isInstance);
        if (nested) checker.refuse("history cannot be taken of history", node.measured());
        else if (!measures)
            checker.refuse("this is not measured over rows; write an aggregate or a measure", node.measured());
        if (node.target() != null) checker.expect(node.target(), Type.NUMBER, "reaches needs a number to get to");
        if (node.within() != null
                && node.within().months() == 0
                && node.within().exact().isZero()) checker.refuse("within needs some time", node);
        return node.kind() == History.Kind.REACHES ? Type.TRUTH : Type.NUMBER;
    }
}
