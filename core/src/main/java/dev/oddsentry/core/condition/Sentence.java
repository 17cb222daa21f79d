package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.condition.Expression.Comparison;
import dev.oddsentry.core.condition.Expression.History;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A condition in plain English, made from its tree and the columns' labels: {@code late by more than 15 min, reason is missing, and status is
 * none of cancelled, training}. What has no words of its own stands as it was written.
 */
final class Sentence {
    private final Condition.Labels labels;

    Sentence(Condition.Labels labels) {
        this.labels = labels;
    }

    String of(Expression tree) {
        return switch (tree) {
            case Expression.And(var operands) -> join(operands, "and");
            case Expression.Or(var operands) -> "either " + join(operands, "or");
            case Expression.Not(var operand) -> "not: " + of(operand);
            case Comparison comparison -> comparison(comparison);
            case Expression.Between(var operand, var low, var high, boolean negated) ->
                is(operand, negated) + "between " + value(low, null) + " and " + value(high, unitOf(operand));
            case Expression.In(var operand, var options, boolean negated) -> in(operand, options, negated);
            case Expression.IsNull(var operand, boolean negated) ->
                subject(operand) + (negated ? " is not missing" : " is missing");
            case Expression.Within(var operand, var window, boolean negated) -> is(operand, negated) + window(window);
            case Expression.Like like -> like(like);
            case Expression.Matches(var operand, var pattern, boolean negated) ->
                subject(operand) + (negated ? " does not fit" : " fits") + " the expression " + pattern;
            case Expression.ColumnName name -> subject(name) + " holds";
            case Expression.History(var kind, var measured, var _, var target, var within)
            when kind == History.Kind.REACHES && target != null && within != null ->
                noun(measured) + " gets to " + value(target, null) + " within " + Printer.span(within)
                        + " if the trend continues";
            case Expression.Literal _,
                    Expression.Threshold _,
                    Expression.Aggregate _,
                    Expression.History _,
                    Expression.Negation _,
                    Arithmetic _,
                    Expression.Call _,
                    Expression.Case _ -> Condition.print(tree);
        };
    }

    /** Commas between plain parts; a part that joins others itself stands in parentheses. */
    private String join(List<Expression> operands, String word) {
        var parts = new ArrayList<String>();
        for (var operand : operands) {
            boolean joins = operand instanceof Expression.And
                    || operand instanceof Expression.Or
                    || operand instanceof Expression.Not;
            parts.add(joins ? "(" + of(operand) + ")" : of(operand));
        }
        String last = parts.removeLast();
        return String.join(", ", parts) + (parts.size() > 1 ? ", " : " ") + word + " " + last;
    }

    private String comparison(Comparison comparison) {
        var left = comparison.left();
        var right = comparison.right();
        String value = value(right, unitOf(left));
        var empty = EmptyTexts.askedOf(comparison);
        if (empty.isPresent())
            return subject(empty.get())
                    + (comparison.operator() == Comparison.Operator.EQUAL
                            ? " is missing or empty"
                            : " is neither missing nor empty");
        if (comparison.operator() == Comparison.Operator.UNEQUAL && !(right instanceof Expression.Literal))
            return subject(left) + " differs from " + value;
        boolean moments = isMoment(left) || isMoment(right);
        String words = switch (comparison.operator()) {
            case EQUAL -> "";
            case UNEQUAL -> "not ";
            case LESS -> moments ? "before " : "less than ";
            case AT_MOST -> moments ? "no later than " : "at most ";
            case MORE -> moments ? "after " : "more than ";
            case AT_LEAST -> moments ? "no earlier than " : "at least ";
        };
        return is(left, false) + words + value;
    }

    /** What shows by itself that it is a date or a time; of a column, its name alone does not. */
    private static boolean isMoment(Expression operand) {
        return switch (operand) {
            case Expression.Literal(var type, var _) -> type.isMoment() || type == Type.TIME;
            case Expression.Call call -> Functions.LOOKING_AT_THE_SLOT.contains(call.name());
            case Arithmetic node -> isMoment(node.left());
            default -> false;
        };
    }

    private String in(Expression operand, List<Expression> options, boolean negated) {
        String list = options.stream().map(option -> value(option, null)).collect(Collectors.joining(", "));
        return is(operand, false) + (negated ? "none of " : "one of ") + list;
    }

    private String like(Expression.Like like) {
        String does = like.negated() ? " does not " : " ";
        String s = like.negated() ? "" : "s";
        if (like.escape() == null && like.pattern() instanceof Expression.Literal(Type _, String pattern)) {
            String bare = pattern.replaceAll("^%|%$", "");
            boolean plain = !bare.isEmpty() && bare.chars().noneMatch(c -> c == '%' || c == '_');
            boolean starts = pattern.endsWith("%");
            boolean ends = pattern.startsWith("%");
            if (plain && starts && ends) return subject(like.operand()) + does + "contain" + s + " “" + bare + "”";
            if (plain && starts) return subject(like.operand()) + does + "start" + s + " with “" + bare + "”";
            if (plain && ends) return subject(like.operand()) + does + "end" + s + " with “" + bare + "”";
        }
        return subject(like.operand()) + does + "fit" + s + " the pattern " + Condition.print(like.pattern());
    }

    private static String window(Window window) {
        String text = Printer.window(window);
        boolean counted = window instanceof Window.Last || window instanceof Window.Next;
        if (window instanceof Window.OlderThan) return text;
        return counted ? "in the " + text : "in " + text;
    }

    /** {@code status is}, {@code late by}: a label that ends in a preposition needs no verb. */
    private String is(Expression operand, boolean negated) {
        String subject = subject(operand);
        boolean prepositional =
                operand instanceof Expression.ColumnName && subject.matches(".* (by|since|until|from|to|at|on)");
        return subject + (prepositional ? " " : " is ") + (negated ? "not " : "");
    }

    private String subject(Expression operand) {
        if (!(operand instanceof Expression.ColumnName(var name, var _))) return noun(operand);
        String label = labels.column(name).text();
        boolean acronym = label.length() > 1 && Character.isUpperCase(label.charAt(1));
        return acronym || label.isEmpty() ? label : label.substring(0, 1).toLowerCase(Locale.ROOT) + label.substring(1);
    }

    /** A calculated value as a noun: {@code the sum of litres}, {@code the usual fuel of the last 8 checks}. */
    String noun(Expression operand) {
        return switch (operand) {
            case Expression.ColumnName _ -> subject(operand);
            case Expression.Threshold(var name, var key) ->
                labels.threshold(name)
                        + (key.isEmpty()
                                ? ""
                                : " for its " + key.stream().map(this::noun).collect(Collectors.joining(" and ")));
            case Expression.Aggregate aggregate -> aggregate(aggregate);
            case Expression.History history -> history(history);
            case Expression.Call call
            when call.name().equals(CheckCounts.EXCEPTIONS) ->
                "the number of " + CheckCounts.kindOf(call) + (call.arguments().isEmpty() ? "" : " ") + "exceptions";
            case Expression.Call call
            when call.name().equals(CheckCounts.UPDATES) ->
                call.arguments().isEmpty()
                        ? "the number of updates"
                        : "the number of " + CheckCounts.kindOf(call) + " findings";
            case Expression.Call call
            when call.arguments().isEmpty() && Functions.LOOKING_AT_THE_SLOT.contains(call.name()) -> call.name();
            case Expression.Negation(var inner) -> "-" + bracketed(inner);
            case Arithmetic node -> {
                String sign = switch (node.operator()) {
                    case MULTIPLY -> "×";
                    case DIVIDE -> "÷";
                    case ADD, SUBTRACT, CONCATENATE -> node.operator().sign;
                };
                yield bracketed(node.left()) + " " + sign + " " + bracketed(node.right());
            }
            default -> Condition.print(operand);
        };
    }

    private String bracketed(Expression operand) {
        boolean joins = operand instanceof Arithmetic;
        return joins ? "(" + noun(operand) + ")" : value(operand, null);
    }

    private String aggregate(Expression.Aggregate aggregate) {
        var argument = aggregate.argument();
        String of = argument == null ? "rows" : noun(argument);
        String words = switch (aggregate.kind()) {
            case COUNT ->
                argument == null
                        ? "the number of rows"
                        : aggregate.distinct() ? "the number of different " + of : "the number of rows with " + of;
            case SUM -> "the sum of " + of;
            case AVG -> "the average of " + of;
            case MIN -> "the lowest " + of;
            case MAX -> "the highest " + of;
            case MEDIAN -> "the median of " + of;
            case PERCENTILE ->
                "the " + (aggregate.percent() == null ? "" : ordinal(aggregate.percent())) + " percentile of " + of;
            case STDDEV -> "the standard deviation of " + of;
            case SHARE -> "the share of rows where " + (argument == null ? "" : of(argument));
        };
        return aggregate.filter() == null ? words : words + " (of rows where " + of(aggregate.filter()) + ")";
    }

    private static String ordinal(BigDecimal number) {
        String digits = number.toPlainString();
        if (digits.matches("(.*[^1])?1")) return digits + "st";
        if (digits.matches("(.*[^1])?2")) return digits + "nd";
        if (digits.matches("(.*[^1])?3")) return digits + "rd";
        return digits + "th";
    }

    private String history(Expression.History history) {
        String measured = noun(history.measured());
        return switch (history.kind()) {
            case PREVIOUS -> measured + " at the previous check";
            case CHANGE -> "the change of " + measured + " since the check before";
            case CHANGE_PCT -> "the change in percent of " + measured + " since the check before";
            case USUAL -> "the usual value of " + measured + " over the last " + history.points() + " checks";
            case SPREAD -> "the usual spread of " + measured + " over the last " + history.points() + " checks";
            case REACHES ->
                history.target() == null || history.within() == null
                        ? Condition.print(history)
                        : "whether " + measured + " gets to " + value(history.target(), null) + " within "
                                + Printer.span(history.within());
        };
    }

    private @Nullable String unitOf(Expression operand) {
        return operand instanceof Expression.ColumnName(var name, var _)
                ? labels.column(name).unit()
                : null;
    }

    private String value(Expression operand, @Nullable String unit) {
        return switch (operand) {
            case Expression.Literal(Type _, String text) -> text.isBlank() ? "“" + text + "”" : text;
            case Expression.Literal(var type, Object value)
            when type == Type.NUMBER -> CellText.of(value, ZoneOffset.UTC) + (unit == null ? "" : " " + unit);
            case Expression.Literal(var type, Object value)
            when type.isMoment() || type == Type.TIME -> CellText.of(value, ZoneOffset.UTC);
            default -> noun(operand);
        };
    }
}
