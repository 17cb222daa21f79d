package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.condition.Expression.Comparison;
import dev.oddsentry.core.condition.Expression.History;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A condition in plain words of a language, made from its tree and the columns' labels: {@code late by more than 15 min, reason is missing, and
 * status is none of cancelled, training}. What has no words of its own is printed as it was written.
 */
final class Sentence {
    private static final Pattern PRINTED_UNIT = Pattern.compile("[a-z]+");

    private final Condition.Labels labels;
    private final SentenceWords words;
    private final Locale locale;

    Sentence(Condition.Labels labels, Locale locale) {
        this.labels = labels;
        this.words = SentenceWords.in(locale);
        this.locale = locale;
    }

    String of(Expression tree) {
        return switch (tree) {
            case Expression.And(var operands) -> join(operands, "join.and");
            case Expression.Or(var operands) -> words.of("either", join(operands, "join.or"));
            case Expression.Not(var operand) -> words.of("not", of(operand));
            case Comparison comparison -> comparison(comparison);
            case Expression.Between(var operand, var low, var high, boolean negated) ->
                is(operand, "between", !negated, value(low, null), value(high, unitOf(operand)));
            case Expression.In(var operand, var options, boolean negated) ->
                is(
                        operand,
                        "in",
                        !negated,
                        options.stream().map(option -> value(option, null)).collect(Collectors.joining(", ")));
            case Expression.IsNull(var operand, boolean negated) -> words.of("missing", !negated, subject(operand));
            case Expression.Within(var operand, var window, boolean negated) ->
                is(operand, "within", !negated, window(window));
            case Expression.Like like -> like(like);
            case Expression.Matches(var operand, var pattern, boolean negated) ->
                words.of("matches", !negated, subject(operand), pattern);
            case Expression.ColumnName name -> words.of("true", subject(name));
            case Expression.History(var kind, var measured, var _, var target, var within)
            when kind == History.Kind.REACHES && target != null && within != null ->
                words.of("reaches", noun(measured), value(target, null), span(within));
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
    private String join(List<Expression> operands, String key) {
        var parts = new ArrayList<String>();
        for (var operand : operands) {
            boolean joins = operand instanceof Expression.And
                    || operand instanceof Expression.Or
                    || operand instanceof Expression.Not;
            parts.add(joins ? "(" + of(operand) + ")" : of(operand));
        }
        String last = parts.removeLast();
        return words.of(parts.size() > 1 ? key + ".many" : key, String.join(", ", parts), last);
    }

    private String comparison(Comparison comparison) {
        var left = comparison.left();
        var right = comparison.right();
        String value = value(right, unitOf(left));
        var empty = EmptyTexts.askedOf(comparison);
        if (empty.isPresent())
            return words.of("empty", comparison.operator() == Comparison.Operator.EQUAL, subject(empty.get()));
        if (comparison.operator() == Comparison.Operator.UNEQUAL && !(right instanceof Expression.Literal))
            return words.of("compare.differs", subject(left), value);
        String kind = isMoment(left) || isMoment(right) ? "moment." : "compare.";
        return is(left, kind + comparison.operator(), true, value);
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

    private String like(Expression.Like like) {
        boolean is = !like.negated();
        if (like.escape() == null && like.pattern() instanceof Expression.Literal(Type _, String pattern)) {
            String bare = pattern.replaceAll("^%|%$", "");
            boolean plain = !bare.isEmpty() && bare.chars().noneMatch(c -> c == '%' || c == '_');
            boolean starts = pattern.endsWith("%");
            boolean ends = pattern.startsWith("%");
            if (plain && starts && ends) return words.of("contains", is, subject(like.operand()), bare);
            if (plain && starts) return words.of("starts", is, subject(like.operand()), bare);
            if (plain && ends) return words.of("ends", is, subject(like.operand()), bare);
        }
        return words.of("like", is, subject(like.operand()), Condition.print(like.pattern()));
    }

    private String window(Window window) {
        return switch (window) {
            case Window.Last(var span) -> words.of("window.last", span(span));
            case Window.Next(var span) -> words.of("window.next", span(span));
            case Window.OlderThan(var span) -> words.of("window.olderThan", span(span));
            case Window.CalendarUnit(int distance, var unit) ->
                words.orElse(
                        "window." + (distance < 0 ? "previous." : distance == 0 ? "this." : "next.") + unit,
                        Printer.window(window));
        };
    }

    private String span(Span span) {
        return PRINTED_UNIT
                .matcher(Printer.span(span))
                .replaceAll(unit -> Matcher.quoteReplacement(words.of("unit." + unit.group())));
    }

    /** {@code status is}, {@code late by}: an English label that ends in a preposition needs no verb. */
    private String is(Expression operand, String key, boolean is, String... values) {
        String subject = subject(operand);
        var all = new ArrayList<String>(List.of(subject));
        all.addAll(List.of(values));
        String sentence = words.of(is || key.startsWith("compare") ? key : key + ".not", all.toArray(String[]::new));
        boolean prepositional = words.isEnglish()
                && operand instanceof Expression.ColumnName
                && subject.matches(".* (by|since|until|from|to|at|on)");
        return prepositional ? subject + sentence.substring(subject.length()).replaceFirst("^ is ", " ") : sentence;
    }

    private String subject(Expression operand) {
        if (!(operand instanceof Expression.ColumnName(var name, var _))) return noun(operand);
        String label = labels.column(name).text();
        boolean acronym = label.length() > 1 && Character.isUpperCase(label.charAt(1));
        return acronym || label.isEmpty() || words.hasCapitalNouns()
                ? label
                : label.substring(0, 1).toLowerCase(Locale.ROOT) + label.substring(1);
    }

    /** A calculated value as a noun: {@code the sum of litres}, {@code the usual value of fuel over the last 8 checks}. */
    String noun(Expression operand) {
        return switch (operand) {
            case Expression.ColumnName _ -> subject(operand);
            case Expression.Threshold(var name, var key) ->
                key.isEmpty()
                        ? labels.threshold(name, locale)
                        : words.of(
                                "threshold.of",
                                labels.threshold(name, locale),
                                key.stream().map(this::noun).collect(Collectors.joining(" " + words.of("and") + " ")));
            case Expression.Aggregate aggregate -> aggregate(aggregate);
            case Expression.History history -> history(history);
            case Expression.Call call when call.name().equals(CheckCounts.EXCEPTIONS) -> counted("exceptions", call);
            case Expression.Call call when call.name().equals(CheckCounts.UPDATES) -> counted("updates", call);
            case Expression.Call call
            when call.arguments().isEmpty() && Functions.LOOKING_AT_THE_SLOT.contains(call.name()) ->
                words.of(call.name());
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

    private String counted(String key, Expression.Call call) {
        return call.arguments().isEmpty()
                ? words.of(key)
                : words.of(key + ".of", words.orElse("kind." + CheckCounts.kindOf(call), CheckCounts.kindOf(call)));
    }

    private String aggregate(Expression.Aggregate aggregate) {
        var argument = aggregate.argument();
        String of = argument == null ? words.of("rows") : noun(argument);
        String text = switch (aggregate.kind()) {
            case COUNT ->
                argument == null
                        ? words.of("count")
                        : words.of(aggregate.distinct() ? "count.different" : "count.with", of);
            case PERCENTILE ->
                words.of("percentile", aggregate.percent() == null ? "" : ordinal(aggregate.percent()), of);
            case SHARE -> words.of("share", argument == null ? "" : of(argument));
            case SUM, AVG, MIN, MAX, MEDIAN, STDDEV -> words.of(aggregate.kind().name(), of);
        };
        return aggregate.filter() == null ? text : words.of("filter", text, of(aggregate.filter()));
    }

    private String ordinal(BigDecimal number) {
        String digits = number.toPlainString();
        if (!words.isEnglish()) return digits;
        if (digits.matches("(.*[^1])?1")) return digits + "st";
        if (digits.matches("(.*[^1])?2")) return digits + "nd";
        if (digits.matches("(.*[^1])?3")) return digits + "rd";
        return digits + "th";
    }

    private String history(Expression.History history) {
        String measured = noun(history.measured());
        return switch (history.kind()) {
            case PREVIOUS, CHANGE, CHANGE_PCT, USUAL, SPREAD ->
                words.of(history.kind().name(), measured, String.valueOf(history.points()));
            case REACHES ->
                history.target() == null || history.within() == null
                        ? Condition.print(history)
                        : words.of("reaches.noun", measured, value(history.target(), null), span(history.within()));
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
