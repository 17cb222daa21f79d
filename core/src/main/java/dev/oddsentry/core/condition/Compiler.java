package dev.oddsentry.core.condition;

import com.google.re2j.Pattern;
import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.condition.Expression.Comparison;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Last stage: a checked tree to nodes bound to column positions and to one slot, so that a row costs no look-up and no clock.
 * Three-valued logic throughout; {@code and} and {@code or} stop at what decides them.
 */
final class Compiler {
    private final Layout layout;
    private final Map<Expression, Type> types;
    private final TextPositions places;
    private final Moment moment;
    private final Moments moments;

    private final Thresholds thresholds;

    Compiler(Layout layout, Map<Expression, Type> types, TextPositions places, Moment moment, Thresholds thresholds) {
        this.layout = layout;
        this.thresholds = thresholds;
        this.types = types;
        this.places = places;
        this.moment = moment;
        this.moments = new Moments(moment);
    }

    Node compile(Expression tree) {
        var slot = layout.slotOf(tree);
        if (slot.isEmpty()) return compileWithoutSlot(tree);
        int index = slot.getAsInt();
        return row -> row[index];
    }

    private Node compileWithoutSlot(Expression tree) {
        return switch (tree) {
            case Expression.Literal(var _, var value) -> _ -> value;
            case Expression.Negation(var operand) -> negation(compile(operand), typeOf(operand));
            case Arithmetic arithmetic -> arithmetic(arithmetic);
            case Comparison(var operator, var left, var right) -> comparison(operator, left, right);
            case Expression.Between(var operand, var low, var high, boolean negated) -> {
                Node between = and(List.of(
                        comparison(Comparison.Operator.AT_LEAST, operand, low),
                        comparison(Comparison.Operator.AT_MOST, operand, high)));
                yield negated ? not(between) : between;
            }
            case Expression.In(var operand, var options, boolean negated) -> {
                Node in = in(operand, options);
                yield negated ? not(in) : in;
            }
            case Expression.IsNull(var operand, boolean negated) -> {
                Node value = compile(operand);
                yield row -> (value.on(row) == null) != negated;
            }
            case Expression.Within(var operand, var window, boolean negated) -> {
                Node within = within(operand, window);
                yield negated ? not(within) : within;
            }
            case Expression.Like like -> like.negated() ? not(like(like)) : like(like);
            case Expression.Matches(var operand, var pattern, boolean negated) -> {
                Node matches = matches(compile(operand), Pattern.compile(pattern));
                yield negated ? not(matches) : matches;
            }
            case Expression.Call call -> call(call);
            case Expression.Threshold threshold -> threshold(threshold);
            case Expression.ColumnName _, Expression.Aggregate _, Expression.History _ ->
                throw new IllegalStateException("no place in the row for " + tree);
            case Expression.Case cases -> cases(cases);
            case Expression.Not(var operand) -> not(compile(operand));
            case Expression.And(var operands) -> and(compileAll(operands));
            case Expression.Or(var operands) -> or(compileAll(operands));
        };
    }

    private List<Node> compileAll(List<Expression> operands) {
        return operands.stream().map(this::compile).toList();
    }

    private Type typeOf(Expression node) {
        return TypeChecker.typeOf(types, node);
    }

    private Node threshold(Expression.Threshold tree) {
        var valid = thresholds.find(tree.name()).orElseThrow().on(moment.today());
        BigDecimal otherwise = valid.get(List.<String>of());
        if (tree.key().isEmpty()) return _ -> otherwise;
        Node[] key = compileAll(tree.key()).toArray(Node[]::new);
        return row -> {
            var texts = new ArrayList<String>(key.length);
            for (Node part : key) {
                Object value = part.on(row);
                if (value == null) return otherwise;
                texts.add(CellText.of(value, moment.zone()));
            }
            return valid.getOrDefault(texts, otherwise);
        };
    }

    private static Node negation(Node operand, Type type) {
        return row -> {
            Object value = operand.on(row);
            if (value == null) return null;
            return type == Type.DURATION ? ((Span) value).negated() : Numbers.negate(value);
        };
    }

    private Node arithmetic(Arithmetic tree) {
        Node left = compile(tree.left());
        Node right = compile(tree.right());
        var evaluator = new ArithmeticEvaluator(
                tree.operator(), typeOf(tree.left()), typeOf(tree.right()), typeOf(tree), moments);
        return row -> {
            Object a = left.on(row);
            // Both are calculated even where one is missing, as in SQL: a division by zero is never hidden by a null
            // beside it.
            Object b = right.on(row);
            if (a == null || b == null) return null;
            try {
                return evaluator.evaluate(a, b);
            } catch (ArithmeticException | DateTimeException impossible) {
                throw failure(tree, impossible);
            }
        };
    }

    private RowFailureException failure(Expression tree, RuntimeException cause) {
        boolean byZero = tree instanceof Arithmetic division && division.operator() == Arithmetic.Operator.DIVIDE;
        String what = byZero ? "division by zero" : String.valueOf(cause.getMessage());
        return new RowFailureException(what + " in " + places.textOf(tree), places.of(tree));
    }

    private Node comparison(Comparison.Operator operator, Expression leftTree, Expression rightTree) {
        var order = new Ordering(typeOf(leftTree), typeOf(rightTree), moments);
        boolean uuids = layout.isUuid(leftTree) || layout.isUuid(rightTree);
        Node left = uuids ? inLowerCase(compared(leftTree, order)) : compared(leftTree, order);
        Node right = uuids ? inLowerCase(compared(rightTree, order)) : compared(rightTree, order);
        boolean equality = operator == Comparison.Operator.EQUAL || operator == Comparison.Operator.UNEQUAL;
        if (equality && order.isOfTexts()) return sameTexts(left, right, operator == Comparison.Operator.EQUAL);
        return row -> {
            Object a = left.on(row);
            Object b = right.on(row);
            if (a == null || b == null || !order.isDecidable(a, b)) return null;
            return operator.holds(order.compare(a, b));
        };
    }

    private static Node inLowerCase(Node texts) {
        return row -> texts.on(row) instanceof String text ? text.toLowerCase(Locale.ROOT) : null;
    }

    /** A literal moment is brought to the comparison's type once, not for each row: zones are slow. */
    private Node compared(Expression tree, Ordering order) {
        if (!(tree instanceof Expression.Literal(var _, Object value)) || value == null) return compile(tree);
        Object fixed = order.inCommon(value);
        return _ -> fixed;
    }

    private Node in(Expression operand, List<Expression> options) {
        boolean fixedTexts = typeOf(operand) == Type.TEXT
                && options.stream()
                        .allMatch(option -> option instanceof Expression.Literal(var _, Object text) && text != null);
        if (!fixedTexts)
            return or(options.stream()
                    .map(option -> comparison(Comparison.Operator.EQUAL, operand, option))
                    .toList());
        Set<Object> texts = new HashSet<>();
        for (var option : options) {
            if (option instanceof Expression.Literal(var _, Object text) && text != null)
                texts.add(layout.isUuid(operand) ? text.toString().toLowerCase(Locale.ROOT) : text);
        }
        Node value = compile(operand);
        return row -> {
            Object text = value.on(row);
            return text == null ? null : texts.contains(text);
        };
    }

    private static Node sameTexts(Node left, Node right, boolean same) {
        return row -> {
            Object a = left.on(row);
            Object b = right.on(row);
            return a == null || b == null ? null : a.equals(b) == same;
        };
    }

    private Node within(Expression operand, Window window) {
        Node value = compile(operand);
        if (typeOf(operand) == Type.DATE) {
            var dates = window.datesAt(moment);
            return row -> {
                Object date = value.on(row);
                return date == null ? null : dates.contains((LocalDate) date);
            };
        }
        var instants = window.instantsAt(moment);
        return row -> {
            Object when = value.on(row);
            return when == null ? null : instants.contains(moments.instant(when));
        };
    }

    private Node like(Expression.Like tree) {
        Node text = compile(tree.operand());
        Node pattern = compile(tree.pattern());
        LikePattern fixed =
                tree.pattern() instanceof Expression.Literal(var _, String literal) ? likePattern(tree, literal) : null;
        return row -> {
            Object value = text.on(row);
            Object written = pattern.on(row);
            if (value == null || written == null) return null;
            return (fixed != null ? fixed : likePattern(tree, (String) written)).matches((String) value);
        };
    }

    private LikePattern likePattern(Expression.Like tree, String pattern) {
        try {
            return new LikePattern(pattern, tree.escape());
        } catch (ArithmeticException wrong) {
            throw failure(tree, wrong);
        }
    }

    private static Node matches(Node operand, Pattern pattern) {
        return row -> {
            Object text = operand.on(row);
            return text == null ? null : pattern.matcher((String) text).find();
        };
    }

    private Node call(Expression.Call tree) {
        Node[] arguments = compileAll(tree.arguments()).toArray(Node[]::new);
        if (tree.name().equals(Functions.COALESCE)) return coalesce(arguments);
        if (tree.name().equals(Functions.NULLIF)) return nullIf(tree, arguments[0]);
        var body = Objects.requireNonNull(Functions.byName().get(tree.name())).signatures().stream()
                .filter(signature -> signature.parameters().size() == arguments.length)
                .findFirst()
                .orElseThrow()
                .body();
        return row -> {
            var values = new Object[arguments.length];
            boolean missing = false;
            boolean notFinite = false;
            for (int i = 0; i < arguments.length; i++) {
                Object value = arguments[i].on(row);
                missing |= value == null;
                notFinite |= value instanceof Double;
                if (value != null) values[i] = value;
            }
            if (missing || notFinite) return missing ? null : Double.NaN;
            try {
                return body.apply(values, moments);
            } catch (ArithmeticException | DateTimeException impossible) {
                throw failure(tree, impossible);
            }
        };
    }

    private static Node coalesce(Node[] arguments) {
        return row -> {
            for (Node argument : arguments) {
                Object value = argument.on(row);
                if (value != null) return value;
            }
            return null;
        };
    }

    private Node nullIf(Expression.Call tree, Node value) {
        Node same = comparison(
                Comparison.Operator.EQUAL,
                tree.arguments().getFirst(),
                tree.arguments().getLast());
        return row -> Boolean.TRUE.equals(same.on(row)) ? null : value.on(row);
    }

    private Node cases(Expression.Case tree) {
        var operand = tree.operand();
        Node[] whens = tree.whens().stream()
                .map(when -> operand == null
                        ? compile(when.when())
                        : comparison(Comparison.Operator.EQUAL, operand, when.when()))
                .toArray(Node[]::new);
        Node[] thens = tree.whens().stream().map(when -> compile(when.then())).toArray(Node[]::new);
        Node otherwise = tree.otherwise() == null ? _ -> null : compile(tree.otherwise());
        return row -> {
            for (int i = 0; i < whens.length; i++) {
                if (Boolean.TRUE.equals(whens[i].on(row))) return thens[i].on(row);
            }
            return otherwise.on(row);
        };
    }

    private static Node not(Node operand) {
        return row -> {
            Object value = operand.on(row);
            return value == null ? null : !(Boolean) value;
        };
    }

    private static Node and(List<Node> operands) {
        return decidedBy(Boolean.FALSE, operands.toArray(Node[]::new));
    }

    private static Node or(List<Node> operands) {
        return decidedBy(Boolean.TRUE, operands.toArray(Node[]::new));
    }

    private static Node decidedBy(Boolean decisive, Node[] operands) {
        return row -> {
            boolean unknown = false;
            for (Node operand : operands) {
                @Nullable Object value = operand.on(row);
                if (decisive.equals(value)) return decisive;
                unknown |= value == null;
            }
            return unknown ? null : !decisive;
        };
    }
}
