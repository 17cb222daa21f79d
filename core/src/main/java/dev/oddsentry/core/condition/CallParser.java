package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Aggregate;
import dev.oddsentry.core.condition.Expression.History;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** Reads what stands behind a name and its {@code (}: functions, thresholds, aggregates, history. */
final class CallParser {
    static final String THRESHOLD = "threshold";
    static final Map<String, Aggregate.Kind> AGGREGATES =
            Stream.of(Aggregate.Kind.values()).collect(Collectors.toMap(Aggregate.Kind::word, Function.identity()));
    static final Map<String, History.Kind> HISTORY =
            Stream.of(History.Kind.values()).collect(Collectors.toMap(History.Kind::word, Function.identity()));

    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);
    private static final int MOST_POINTS = 1000;

    private final TokenStream tokens;
    private final Supplier<Expression> argument;

    CallParser(TokenStream tokens, Supplier<Expression> argument) {
        this.tokens = tokens;
        this.argument = argument;
    }

    Expression afterParenthesis(Token name) {
        var aggregate = AGGREGATES.get(name.text());
        if (aggregate != null) return aggregate(aggregate);
        var history = HISTORY.get(name.text());
        if (history != null) return history(history);
        return name.text().equals(THRESHOLD) ? threshold() : call(name);
    }

    private Expression call(Token name) {
        var arguments = new ArrayList<Expression>();
        if (!tokens.takeSign(")")) {
            do arguments.add(argument.get());
            while (tokens.takeSign(","));
            tokens.expectSign(")");
        }
        return new Expression.Call(name.text(), List.copyOf(arguments));
    }

    private Expression threshold() {
        if (tokens.peek().kind() != Token.Kind.TEXT) throw tokens.refuse("the threshold's name in quotes");
        String name = tokens.next().text();
        var key = new ArrayList<Expression>();
        while (tokens.takeSign(",")) key.add(argument.get());
        tokens.expectSign(")");
        return new Expression.Threshold(name, List.copyOf(key));
    }

    private Expression aggregate(Aggregate.Kind kind) {
        boolean distinct = kind == Aggregate.Kind.COUNT
                && tokens.peek().isWord("distinct")
                && !tokens.peek(1).isSign(")")
                && tokens.take("distinct");
        Expression counted = switch (kind) {
            case COUNT -> countedOrNull();
            case SHARE -> {
                tokens.expect("where");
                yield argument.get();
            }
            case SUM, AVG, MIN, MAX, MEDIAN, PERCENTILE, STDDEV -> argument.get();
        };
        BigDecimal percent = kind == Aggregate.Kind.PERCENTILE ? percent() : null;
        tokens.expectSign(")");
        return new Aggregate(kind, counted, percent, distinct, filter());
    }

    /** {@code count()}, as well as {@code count(*)}, which SQL taught everyone. */
    private @Nullable Expression countedOrNull() {
        if (tokens.peek().isSign(")")) return null;
        return tokens.takeSign("*") ? null : argument.get();
    }

    private BigDecimal percent() {
        tokens.expectSign(",");
        Token written = tokens.peek();
        if (written.kind() == Token.Kind.NUMBER && written.text().length() <= 20) {
            var percent = new BigDecimal(written.text());
            if (percent.signum() >= 0 && percent.compareTo(HUNDRED) <= 0) {
                tokens.next();
                return percent;
            }
        }
        throw tokens.refuse("a percentage from 0 to 100");
    }

    private @Nullable Expression filter() {
        if (!tokens.peek().isWord("filter") || !tokens.peek(1).isSign("(")) return null;
        tokens.next();
        tokens.next();
        tokens.expect("where");
        Expression filter = argument.get();
        tokens.expectSign(")");
        return filter;
    }

    private Expression history(History.Kind kind) {
        Expression measured = argument.get();
        return switch (kind) {
            case PREVIOUS, CHANGE, CHANGE_PCT -> {
                tokens.expectSign(")");
                yield new History(kind, measured, null, null, null);
            }
            case USUAL, SPREAD -> {
                tokens.expectSign(",");
                int points = points();
                tokens.expectSign(")");
                yield new History(kind, measured, points, null, null);
            }
            case REACHES -> {
                tokens.expectSign(",");
                Expression target = argument.get();
                tokens.expectSign(")");
                tokens.expect("within");
                yield new History(kind, measured, null, target, new WindowParser(tokens).length());
            }
        };
    }

    private int points() {
        Token written = tokens.peek();
        boolean whole = written.kind() == Token.Kind.NUMBER && written.text().matches("[0-9]{1,4}");
        int points = whole ? Integer.parseInt(written.text()) : 0;
        if (points < 2 || points > MOST_POINTS) {
            throw tokens.refuse("how many of the last checks to look at, from 2 to " + MOST_POINTS);
        }
        tokens.next();
        return points;
    }
}
