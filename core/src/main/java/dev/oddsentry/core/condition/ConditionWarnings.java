package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Aggregate;
import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.condition.Expression.Comparison;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Type;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.Stream;

/** What is doubtful in a condition that can be evaluated: parts that can never hold, or always do, and equality on a quotient. */
final class ConditionWarnings {
    /** Each is held against each; a long list of alternatives is a list, and nobody errs in it so. */
    private static final int MOST_COMPARED = 100;

    private final TextPositions places;
    private final Map<Expression, Type> types;
    private final List<Problem> warnings = new ArrayList<>();

    private ConditionWarnings(TextPositions places, Map<Expression, Type> types) {
        this.places = places;
        this.types = types;
    }

    static List<Problem> of(Expression tree, TextPositions places, Map<Expression, Type> types) {
        var doubts = new ConditionWarnings(places, types);
        doubts.look(tree);
        return doubts.warnings;
    }

    private void look(Expression node) {
        if (isFixed(node)) {
            sayFixed(node);
            return;
        }
        switch (node) {
            case Comparison comparison -> lookAtEquality(comparison);
            case Expression.In(var operand, var _, var _) when isQuotient(operand) -> warnOfQuotient(node);
            case Expression.And(var operands) -> together(operands);
            case Expression.Or(var operands) -> apart(operands);
            default -> {}
        }
        boolean alone = !(node instanceof Expression.And);
        if (alone) range(node).ifPresent(range -> lookAlone(node, range));
        Trees.children(node).stream()
                .filter(child -> types.get(child) == Type.TRUTH)
                .forEach(this::look);
    }

    /** True where neither row nor slot has a say. A bare {@code true} was meant. */
    private boolean isFixed(Expression node) {
        boolean bare = node instanceof Expression.Literal;
        return !bare && types.get(node) == Type.TRUTH && Trees.nodes(node).noneMatch(ConditionWarnings::varies);
    }

    private static boolean varies(Expression node) {
        return node instanceof Expression.ColumnName
                || node instanceof Expression.Threshold
                || node instanceof Aggregate
                || node instanceof Expression.History
                || Trees.looksAtTheSlot(node)
                || (node instanceof Expression.Call call && isCount(call));
    }

    private static boolean isCount(Expression.Call call) {
        return call.name().equals(CheckCounts.EXCEPTIONS) || call.name().equals(CheckCounts.UPDATES);
    }

    private void sayFixed(Expression node) {
        var moment = new Moment(Instant.EPOCH, ZoneOffset.UTC);
        var compiler = new Compiler(_ -> OptionalInt.empty(), types, places, moment, Thresholds.NONE);
        try {
            boolean holds = Boolean.TRUE.equals(compiler.compile(node).on(new Object[0]));
            warn(holds ? "this is always true" : "this is never true", node);
        } catch (RowFailureException failing) {
            warn("this can never be calculated: " + failing.getMessage(), node);
        }
    }

    private void lookAtEquality(Comparison comparison) {
        boolean equality = comparison.operator() == Comparison.Operator.EQUAL
                || comparison.operator() == Comparison.Operator.UNEQUAL;
        if (equality && (isQuotient(comparison.left()) || isQuotient(comparison.right()))) warnOfQuotient(comparison);
    }

    private void warnOfQuotient(Expression node) {
        warn("a quotient is hardly ever exactly equal to anything; round it, or compare with a distance", node);
    }

    /** A division, or an aggregate that divides, that nothing rounds. */
    private static boolean isQuotient(Expression node) {
        return switch (node) {
            case Arithmetic(var operator, var left, var right) ->
                operator == Arithmetic.Operator.DIVIDE || isQuotient(left) || isQuotient(right);
            case Expression.Negation(var operand) -> isQuotient(operand);
            case Aggregate aggregate ->
                switch (aggregate.kind()) {
                    case AVG, STDDEV, SHARE, PERCENTILE -> true;
                    case COUNT, SUM, MIN, MAX, MEDIAN -> false;
                };
            case Expression.Call call ->
                call.name().equals("hours_between") || call.name().equals("minutes_between");
            default -> false;
        };
    }

    private void lookAlone(Expression node, Range range) {
        var domain = Range.domainOf(range.subject(), types);
        if (range.with(domain).isEmpty()) warn("this is never true", node);
        else if (range.complement().map(rest -> rest.with(domain).isEmpty()).orElse(false))
            warn("this is always true, unless " + places.textOf(range.subject()) + " is missing", node);
    }

    private Optional<Range> range(Expression node) {
        return Range.of(node, types);
    }

    /** Of operands that must hold together, the first that leaves nothing with those before it. */
    private void together(List<Expression> operands) {
        var ranges = new HashMap<Expression, Range>();
        var compared = new HashMap<Expression, Expression>();
        for (var operand : operands) {
            range(operand).ifPresent(range -> {
                var before = ranges.get(range.subject());
                boolean possible = !range.isEmpty() && (before == null || !before.isEmpty());
                var both = before == null ? range : before.with(range);
                if (possible && both.isEmpty()) {
                    warn(
                            "this is never true together with the earlier condition on "
                                    + places.textOf(range.subject()),
                            operand);
                }
                ranges.put(range.subject(), both);
            });
            subjects(operand).forEach(subject -> compared.putIfAbsent(subject, operand));
        }
        for (var operand : operands) {
            if (operand instanceof Expression.IsNull(var subject, boolean negated)
                    && !negated
                    && compared.containsKey(subject)) {
                warn(
                        "this is never true together with " + places.textOf(compared.get(subject))
                                + ", which is unknown where " + places.textOf(subject) + " is missing",
                        operand);
            }
        }
    }

    /** What a comparison needs a value of. */
    private static Stream<Expression> subjects(Expression operand) {
        return switch (operand) {
            case Comparison(var _, var left, var right) -> Stream.of(left, right);
            case Expression.Between between -> Stream.of(between.operand());
            case Expression.In in -> Stream.of(in.operand());
            case Expression.Like like -> Stream.of(like.operand());
            case Expression.Within within -> Stream.of(within.operand());
            default -> Stream.empty();
        };
    }

    /** Of operands of which one must hold, two that leave nothing out. */
    private void apart(List<Expression> operands) {
        var bySubject = new LinkedHashMap<Expression, List<Rest>>();
        for (var operand : operands) {
            range(operand)
                    .flatMap(Range::complement)
                    .ifPresent(rest -> bySubject
                            .computeIfAbsent(rest.subject(), _ -> new ArrayList<>())
                            .add(new Rest(operand, rest)));
        }
        bySubject.values().stream()
                .filter(rests -> rests.size() <= MOST_COMPARED)
                .forEach(this::apartOfOne);
    }

    /** What a condition leaves out. */
    private record Rest(Expression condition, Range range) {}

    private void apartOfOne(List<Rest> rests) {
        for (int i = 0; i < rests.size(); i++) {
            for (int j = i + 1; j < rests.size(); j++) {
                if (!rests.get(i).range().with(rests.get(j).range()).isEmpty()) continue;
                warn(
                        "one of two conditions is always true: this or "
                                + places.textOf(rests.get(i).condition()) + "; was and meant?",
                        rests.get(j).condition());
            }
        }
    }

    private void warn(String message, Expression node) {
        warnings.add(new Problem(Problem.Weight.WARNING, message, "", places.of(node), null));
    }
}
