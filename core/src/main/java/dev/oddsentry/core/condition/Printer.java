package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.condition.Expression.Comparison;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.CellText;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/** A tree back to text, with the fewest parentheses that keep it the same tree. */
final class Printer {
    /** How tightly a node binds; an operand that binds less tightly than its place asks for stands in parentheses. */
    private enum Level {
        OR,
        AND,
        NOT,
        IS,
        COMPARISON,
        RANGE,
        CONCATENATION,
        SUM,
        PRODUCT,
        SIGNED,
        PRIMARY;

        Level tighter() {
            return values()[ordinal() + 1];
        }
    }

    private Printer() {}

    static String print(Expression tree) {
        return switch (tree) {
            case Expression.Literal literal -> literal(literal);
            case Expression.ColumnName(var name, boolean quoted) ->
                quoted ? "\"" + name.replace("\"", "\"\"") + "\"" : name;
            // Two signs in a row would be the start of a comment.
            case Expression.Negation(Expression.Negation operand) -> "-(" + print(operand) + ")";
            case Expression.Negation(var operand) -> "-" + in(Level.SIGNED, operand);
            case Arithmetic(var operator, var left, var right) -> {
                Level level = levelOf(operator);
                yield in(level, left) + " " + operator.sign + " " + in(level.tighter(), right);
            }
            case Comparison(var operator, var left, var right) ->
                in(Level.RANGE, left) + " " + operator.sign + " " + in(Level.RANGE, right);
            case Expression.Between(var operand, var low, var high, boolean negated) ->
                in(Level.CONCATENATION, operand) + not(negated) + " between " + in(Level.CONCATENATION, low) + " and "
                        + in(Level.CONCATENATION, high);
            case Expression.In(var operand, var options, boolean negated) ->
                in(Level.CONCATENATION, operand) + not(negated) + " in ("
                        + options.stream()
                                .map(option -> in(Level.CONCATENATION, option))
                                .collect(Collectors.joining(", "))
                        + ")";
            case Expression.IsNull(var operand, boolean negated) ->
                in(Level.IS, operand) + " is" + not(negated) + " null";
            case Expression.Within(var operand, Window.OlderThan(var span), boolean negated) ->
                in(Level.CONCATENATION, operand) + not(negated) + " older than " + span(span);
            case Expression.Within(var operand, var window, boolean negated) ->
                in(Level.CONCATENATION, operand) + not(negated) + " in " + window(window);
            case Expression.Like(var operand, var pattern, var escape, boolean negated) ->
                in(Level.CONCATENATION, operand) + not(negated) + " like " + in(Level.CONCATENATION, pattern)
                        + (escape == null ? "" : " escape " + quoted(escape));
            case Expression.Matches(var operand, var pattern, boolean negated) ->
                in(Level.CONCATENATION, operand) + not(negated) + " matches " + quoted(pattern);
            case Expression.Call(var name, var arguments) ->
                arguments.stream().map(Printer::print).collect(Collectors.joining(", ", name + "(", ")"));
            case Expression.Case cases -> cases(cases);
            case Expression.Threshold(var name, var key) ->
                "threshold(" + quoted(name)
                        + key.stream().map(each -> ", " + print(each)).collect(Collectors.joining()) + ")";
            case Expression.Aggregate aggregate -> aggregate(aggregate);
            case Expression.History history -> history(history);
            case Expression.Not(var operand) -> "not " + in(Level.NOT, operand);
            case Expression.And(var operands) -> chain(Level.AND, " and ", operands);
            case Expression.Or(var operands) -> chain(Level.OR, " or ", operands);
        };
    }

    private static String aggregate(Expression.Aggregate aggregate) {
        var text = new StringBuilder(aggregate.kind().word()).append('(');
        if (aggregate.distinct()) text.append("distinct ");
        if (aggregate.kind() == Expression.Aggregate.Kind.SHARE) text.append("where ");
        if (aggregate.argument() != null) text.append(print(aggregate.argument()));
        if (aggregate.percent() != null)
            text.append(", ").append(aggregate.percent().toPlainString());
        text.append(')');
        if (aggregate.filter() != null)
            text.append(" filter (where ").append(print(aggregate.filter())).append(')');
        return text.toString();
    }

    private static String history(Expression.History history) {
        String call = history.kind().word() + "(" + print(history.measured())
                + (history.points() == null ? "" : ", " + history.points())
                + (history.target() == null ? "" : ", " + print(history.target())) + ")";
        return history.within() == null ? call : call + " within " + span(history.within());
    }

    private static String cases(Expression.Case cases) {
        var text = new StringBuilder("case");
        if (cases.operand() != null) text.append(' ').append(print(cases.operand()));
        cases.whens()
                .forEach(when -> text.append(" when ")
                        .append(print(when.when()))
                        .append(" then ")
                        .append(print(when.then())));
        if (cases.otherwise() != null) text.append(" else ").append(print(cases.otherwise()));
        return text.append(" end").toString();
    }

    private static String quoted(String text) {
        return "'" + text.replace("'", "''") + "'";
    }

    private static String chain(Level level, String word, List<Expression> operands) {
        return operands.stream().map(operand -> in(level.tighter(), operand)).collect(Collectors.joining(word));
    }

    private static String in(Level least, Expression node) {
        return levelOf(node).compareTo(least) < 0 ? "(" + print(node) + ")" : print(node);
    }

    private static String not(boolean negated) {
        return negated ? " not" : "";
    }

    private static Level levelOf(Expression node) {
        return switch (node) {
            case Expression.Or _ -> Level.OR;
            case Expression.And _ -> Level.AND;
            case Expression.Not _ -> Level.NOT;
            case Expression.IsNull _ -> Level.IS;
            case Comparison _ -> Level.COMPARISON;
            case Expression.Between _, Expression.In _, Expression.Within _, Expression.Like _, Expression.Matches _ ->
                Level.RANGE;
            case Arithmetic arithmetic -> levelOf(arithmetic.operator());
            case Expression.Negation _ -> Level.SIGNED;
            case Expression.Literal _,
                    Expression.ColumnName _,
                    Expression.Call _,
                    Expression.Threshold _,
                    Expression.Aggregate _,
                    Expression.History _,
                    Expression.Case _ -> Level.PRIMARY;
        };
    }

    private static Level levelOf(Arithmetic.Operator operator) {
        return switch (operator) {
            case CONCATENATE -> Level.CONCATENATION;
            case ADD, SUBTRACT -> Level.SUM;
            case MULTIPLY, DIVIDE -> Level.PRODUCT;
        };
    }

    private static String literal(Expression.Literal literal) {
        return switch (literal.value()) {
            case null -> "null";
            case String text -> quoted(text);
            case BigDecimal decimal -> decimal.toString();
            case LocalDate date -> "date '" + date + "'";
            case LocalTime time -> "time '" + time + "'";
            case LocalDateTime local -> "timestamp '" + CellText.of(local, ZoneOffset.UTC) + "'";
            case Span span -> span(span);
            case Object other -> other.toString();
        };
    }

    static String window(Window window) {
        return switch (window) {
            case Window.Last(var span) -> "last " + span(span);
            case Window.Next(var span) -> "next " + span(span);
            case Window.OlderThan(var span) -> "older than " + span(span);
            case Window.CalendarUnit(int distance, var unit) ->
                (distance < 0 ? "previous " : distance == 0 ? "this " : "next ") + word(unit);
        };
    }

    /** Whole units only; {@code 90 minutes} is printed as {@code 1 hour 30 minutes}, which is the same span. */
    static String span(Span span) {
        var words = new ArrayList<String>();
        addUnits(words, span.months() / 12, "year");
        addUnits(words, span.months() % 12, "month");
        addUnits(words, span.days(), "day");
        addUnits(words, span.clock().toHours(), "hour");
        addUnits(words, span.clock().toMinutesPart(), "minute");
        addUnits(words, span.clock().toSecondsPart(), "second");
        return words.isEmpty() ? "0 days" : String.join(" ", words);
    }

    private static void addUnits(List<String> words, long amount, String unit) {
        if (amount != 0) words.add(amount + " " + unit + (amount == 1 ? "" : "s"));
    }

    private static String word(Enum<?> unit) {
        return unit.name().toLowerCase(Locale.ROOT);
    }
}
