package dev.oddsentry.core.condition;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.util.ArrayList;
import java.util.Collection;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;

/** Third stage: gives every node a type against a query's columns and collects every problem, not only the first. */
final class TypeChecker {
    private final Scope scope;
    private final TextPositions places;
    private boolean insideAggregate;
    private final Map<Expression, Type> types = new IdentityHashMap<>();
    private final List<Problem> problems = new ArrayList<>();

    TypeChecker(Scope scope, TextPositions places) {
        this.scope = scope;
        this.places = places;
    }

    /** The type of every node, by identity; complete only if {@link #problems()} holds no error. */
    Map<Expression, Type> checkCondition(Expression tree) {
        expect(tree, Type.TRUTH, "a condition is true or not");
        return types;
    }

    /** The same for a measure, which is of any type. */
    Map<Expression, Type> checkMeasure(Expression tree) {
        check(tree);
        return types;
    }

    Scope scope() {
        return scope;
    }

    boolean isInsideAggregate() {
        return insideAggregate;
    }

    /** Names inside an aggregate are the query's columns. */
    Type insideAggregate(Supplier<Type> check) {
        insideAggregate = true;
        try {
            return check.get();
        } finally {
            insideAggregate = false;
        }
    }

    /** A name that stands for a measure of the group. */
    boolean isMeasure(Expression node) {
        return node instanceof Expression.ColumnName(var name, boolean quoted)
                && scope.columns().indexOf(name, quoted).isPresent()
                && scope.rows().indexOf(name, quoted).isEmpty();
    }

    List<Problem> problems() {
        return List.copyOf(problems);
    }

    Type check(Expression node) {
        Type type = switch (node) {
            case Expression.Literal(var literalType, var _) -> literalType;
            case Expression.ColumnName name -> column(name);
            case Expression.Negation(var operand) -> negation(node, operand);
            case Arithmetic arithmetic -> arithmetic(arithmetic);
            case Expression.Comparison(var operator, var left, var right) -> {
                if (isOfOrder(operator)) lookAtOrder(node, left, right);
                yield comparison(node, left, right);
            }
            case Expression.Between(var operand, var low, var high, var _) -> {
                lookAtOrder(node, operand);
                comparable(operand, check(operand), low, check(low));
                yield comparison(node, operand, high);
            }
            case Expression.In(var operand, var options, var _) -> {
                Type wanted = check(operand);
                options.forEach(option -> comparable(operand, wanted, option, check(option)));
                yield Type.TRUTH;
            }
            case Expression.IsNull(var operand, var _) -> {
                check(operand);
                yield Type.TRUTH;
            }
            case Expression.Within(var operand, var window, var _) -> within(operand, window);
            case Expression.Like like -> like(like);
            case Expression.Matches matches -> matches(matches);
            case Expression.Call call -> new CallTypes(this).of(call);
            case Expression.Case cases -> cases(cases);
            case Expression.Threshold threshold -> new MeasureTypes(this).of(threshold);
            case Expression.Aggregate aggregate -> new MeasureTypes(this).of(aggregate);
            case Expression.History history -> new MeasureTypes(this).of(history);
            case Expression.Not(var operand) -> truth(operand, "not");
            case Expression.And(var operands) -> truths(operands, "and");
            case Expression.Or(var operands) -> truths(operands, "or");
        };
        types.put(node, type);
        return type;
    }

    private Type column(Expression.ColumnName name) {
        Columns columns = insideAggregate ? scope.rows() : scope.columns();
        var index = columns.indexOf(name.name(), name.quoted());
        if (index.isPresent()) return columns.at(index.getAsInt()).type();
        problems.add(places.problem(unknown(name, columns), name)
                .suggesting(Nearest.to(name.name(), columns.names()).orElse(null)));
        return Type.NULL;
    }

    private String unknown(Expression.ColumnName name, Columns columns) {
        boolean ofRows = scope.rows().indexOf(name.name(), name.quoted()).isPresent();
        if (ofRows) {
            return name.name() + " belongs to single rows; take an aggregate of it, such as max(" + name.name()
                    + "), or group by it with per:";
        }
        if (Functions.LOOKING_AT_THE_SLOT.contains(name.name().toLowerCase(Locale.ROOT)))
            return "unknown column \"" + name.name() + "\"; the slot's is written " + name.name() + "()";
        String known = columns.names().isEmpty() ? "no columns" : String.join(", ", columns.names());
        return switch (scope.place()) {
            case ROW -> "unknown column \"" + name.name() + "\"; the query returns: " + known;
            case GROUP ->
                insideAggregate
                        ? "unknown column \"" + name.name() + "\"; the query returns: " + known
                        : "unknown name \"" + name.name() + "\"; the group has: " + known;
            case CHECK -> "no columns here; a check counts with exceptions(), updates() and updates('new')";
        };
    }

    private Type negation(Expression node, Expression operand) {
        Type type = check(operand);
        if (type == Type.NUMBER || type == Type.DURATION || type == Type.NULL) return type;
        refuse("- is for numbers and durations; this is " + type.word(), node);
        return Type.NULL;
    }

    private Type arithmetic(Arithmetic node) {
        Type left = check(node.left());
        Type right = check(node.right());
        if (left == Type.NULL || right == Type.NULL) return left == Type.NULL ? right : left;
        Type result = resultOf(node, left, right);
        if (result != Type.NULL) return result;
        String sign = node.operator().sign;
        refuse("cannot calculate " + left.word() + " " + sign + " " + right.word() + adviceFor(left, right), node);
        return Type.NULL;
    }

    private static Type resultOf(Arithmetic node, Type left, Type right) {
        return switch (node.operator()) {
            case ADD -> {
                if (left == Type.DURATION && right.isMoment()) yield shifted(right, node.left());
                yield addition(left, right, node.right());
            }
            case SUBTRACT -> left.isMoment() && right.isMoment() ? Type.DURATION : addition(left, right, node.right());
            case MULTIPLY, DIVIDE -> left == Type.NUMBER && right == Type.NUMBER ? Type.NUMBER : Type.NULL;
            case CONCATENATE -> left == Type.TEXT && right == Type.TEXT ? Type.TEXT : Type.NULL;
        };
    }

    private static Type addition(Type left, Type right, Expression added) {
        if (left == Type.NUMBER && right == Type.NUMBER) return Type.NUMBER;
        if (left == Type.DURATION && right == Type.DURATION) return Type.DURATION;
        return left.isMoment() && right == Type.DURATION ? shifted(left, added) : Type.NULL;
    }

    /** A date moved by whole days stays a date; by anything that may have hours it becomes a timestamp. */
    private static Type shifted(Type moment, Expression duration) {
        if (moment != Type.DATE) return moment;
        boolean wholeDays = duration instanceof Expression.Literal(var _, Span span) && !span.hasClock();
        return wholeDays ? Type.DATE : Type.TIMESTAMP;
    }

    private Column.Nature natureOf(Expression node) {
        if (!(node instanceof Expression.ColumnName name)) return Column.Nature.PLAIN;
        Columns columns = insideAggregate ? scope.rows() : scope.columns();
        var index = columns.indexOf(name.name(), name.quoted());
        return index.isPresent() ? columns.at(index.getAsInt()).nature() : Column.Nature.PLAIN;
    }

    private void lookAtOrder(Expression node, Expression... operands) {
        for (var operand : operands)
            if (natureOf(operand) == Column.Nature.ENUMERATION)
                warn(
                        places.textOf(operand)
                                + " is an enumeration of the source; here its values are compared as texts, by the alphabet and not by the order"
                                + " of the source. Name the values instead: " + places.textOf(operand) + " in (...)",
                        node);
    }

    private static boolean isOfOrder(Expression.Comparison.Operator operator) {
        return operator != Expression.Comparison.Operator.EQUAL && operator != Expression.Comparison.Operator.UNEQUAL;
    }

    private static String adviceFor(Type left, Type right) {
        boolean momentAndNumber =
                (left.isMoment() && right == Type.NUMBER) || (left == Type.NUMBER && right.isMoment());
        return momentAndNumber ? "; write a unit, such as 7 days" : "";
    }

    private Type comparison(Expression node, Expression left, Expression right) {
        comparable(left, check(left), right, check(right));
        lookAtMidnight(node, types.get(left), types.get(right));
        boolean withNull = types.get(left) == Type.NULL || types.get(right) == Type.NULL;
        if (withNull && (isNullLiteral(left) || isNullLiteral(right))) {
            warn("a comparison with null is never true; to ask whether a value is missing, write is null", node);
        }
        return Type.TRUTH;
    }

    /** Only a timestamp of midnight is equal to a date. */
    private void lookAtMidnight(Expression node, @Nullable Type left, @Nullable Type right) {
        boolean equality = node instanceof Expression.Comparison(var operator, var _, var _) && !isOfOrder(operator);
        boolean dateAndTime = (left == Type.DATE && (right == Type.TIMESTAMP || right == Type.INSTANT))
                || (right == Type.DATE && (left == Type.TIMESTAMP || left == Type.INSTANT));
        if (equality && dateAndTime)
            warn(
                    "a timestamp is equal to a date at midnight only; for the whole day write a window, such as planned in today",
                    node);
    }

    private static boolean isNullLiteral(Expression node) {
        return node instanceof Expression.Literal(var type, var _) && type == Type.NULL;
    }

    void comparable(Expression left, Type leftType, Expression right, Type rightType) {
        if (leftType == Type.NULL || rightType == Type.NULL) return;
        if (leftType == rightType && leftType != Type.BYTES) return;
        if (leftType.isMoment() && rightType.isMoment()) return;
        refuse(
                "cannot compare " + places.textOf(left) + ", " + leftType.word() + ", with " + rightType.word()
                        + adviceFor(leftType, rightType, right),
                right);
    }

    private static String adviceFor(Type left, Type right, Expression written) {
        if (left.isMoment() && right == Type.TEXT && written instanceof Expression.Literal(var _, String text)) {
            return left == Type.DATE ? "; write date '" + text + "'" : "; write timestamp '" + text + "'";
        }
        if (left == Type.NUMBER
                && written instanceof Expression.Literal(var _, String text)
                && text.matches("-?[0-9.]+")) {
            return "; write it without quotes: " + text;
        }
        if (left == Type.TEXT && right == Type.NUMBER)
            return "; write it in quotes, or turn the text into a number in the query";
        return left == Type.DURATION && right == Type.NUMBER ? "; write a unit, such as 15 minutes" : "";
    }

    private Type within(Expression operand, Window window) {
        Type type = check(operand);
        if (type != Type.NULL && !type.isMoment()) {
            refuse("a window needs a date or a timestamp, this is " + type.word(), operand);
        } else if (type == Type.DATE && window.needsClock()) {
            refuse("a date has no time of day: give the window in days or longer", operand);
        }
        return Type.TRUTH;
    }

    private Type like(Expression.Like node) {
        expect(node.operand(), Type.TEXT, "like compares texts");
        expect(node.pattern(), Type.TEXT, "like compares texts");
        if (!(node.pattern() instanceof Expression.Literal(var _, String pattern))) return Type.TRUTH;
        try {
            boolean wild = new LikePattern(pattern, node.escape()).hasWildcard();
            if (!wild) warn("this pattern has no % and no _, so it is an equality; write = instead", node.pattern());
        } catch (ArithmeticException wrong) {
            refuse(String.valueOf(wrong.getMessage()), node.pattern());
        }
        return Type.TRUTH;
    }

    private Type matches(Expression.Matches node) {
        expect(node.operand(), Type.TEXT, "matches looks into texts");
        if (PatternSize.isTooLarge(node.pattern())) {
            refuse(
                    "this regular expression is too large: its repetitions multiply to more than " + PatternSize.MOST
                            + " steps",
                    node);
            return Type.TRUTH;
        }
        try {
            Pattern.compile(node.pattern());
        } catch (PatternSyntaxException wrong) {
            refuse("'" + node.pattern() + "' is not a regular expression: " + wrong.getDescription(), node);
        }
        return Type.TRUTH;
    }

    private Type cases(Expression.Case node) {
        Type wanted = node.operand() == null ? Type.TRUTH : check(node.operand());
        Type result = Type.NULL;
        for (var when : node.whens()) {
            if (node.operand() == null) expect(when.when(), Type.TRUTH, "when asks for a condition");
            else comparable(node.operand(), wanted, when.when(), check(when.when()));
            result = together(result, when.then());
        }
        return node.otherwise() == null ? result : together(result, node.otherwise());
    }

    /** The type that results have in common; a null fits every other. */
    Type together(Type before, Expression next) {
        Type type = check(next);
        if (before == Type.NULL || type == before) return type == Type.NULL ? before : type;
        if (type != Type.NULL) refuse("the others are " + before.word() + ", this is " + type.word(), next);
        return before;
    }

    private Type truths(List<Expression> operands, String word) {
        operands.forEach(operand -> truth(operand, word));
        return Type.TRUTH;
    }

    private Type truth(Expression operand, String word) {
        return expect(operand, Type.TRUTH, word + " joins conditions");
    }

    Type expect(Expression node, Type wanted, String because) {
        Type type = check(node);
        if (type != wanted && type != Type.NULL) refuse(because + ", this is " + type.word(), node);
        return wanted;
    }

    void refuse(String message, Expression node) {
        problems.add(places.problem(message, node));
    }

    void refuse(String message, Expression node, Collection<String> known, String seen) {
        problems.add(
                places.problem(message, node).suggesting(Nearest.to(seen, known).orElse(null)));
    }

    private void warn(String message, Expression node) {
        problems.add(new Problem(Problem.Weight.WARNING, message, "", places.of(node), null));
    }

    /** The type of a node that was checked. */
    static Type typeOf(Map<Expression, Type> types, Expression node) {
        return Objects.requireNonNull(types.get(node), () -> "unchecked " + node);
    }
}
