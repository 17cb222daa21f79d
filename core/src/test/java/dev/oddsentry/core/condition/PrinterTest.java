package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.Seeded;
import dev.oddsentry.core.condition.Expression.Arithmetic;
import dev.oddsentry.core.condition.Expression.Comparison;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PrinterTest {

    @Test
    void readingWhatPrintingPrintedGivesTheSameTree() {
        Seeded.cases(5_000, random -> {
            Expression tree = tree(random, 4);
            String printed = Condition.print(tree);
            assertThat(Parser.parse(printed, new TextPositions(printed)))
                    .as(printed)
                    .isEqualTo(tree);
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "a=1 AND (b  =  2 and c=3)       | a = 1 and (b = 2 and c = 3)",
                "(a = 1) or ((b = 2) and c = 3)  | a = 1 or b = 2 and c = 3",
                "a - (b - c) > -1                 | a - (b - c) > -1",
                "(a) is not null                 | a is not null",
                "planned IN LAST 90 MINUTES      | planned in last 1 hour 30 minutes",
                "a != 'it''s'                    | a <> 'it''s'",
            })
    void printsTheCanonicalText(String written, String canonical) {
        assertThat(Condition.print(Parser.parse(written, new TextPositions(written))))
                .isEqualTo(canonical);
    }

    /** Any tree, typed or not: the grammar does not care. */
    private static Expression tree(Random random, int depth) {
        if (depth == 0) return leaf(random);
        return switch (random.nextInt(18)) {
            case 0 -> new Expression.And(some(random, depth));
            case 1 -> new Expression.Or(some(random, depth));
            case 2 -> new Expression.Not(tree(random, depth - 1));
            case 3 -> new Expression.IsNull(tree(random, depth - 1), random.nextBoolean());
            case 4 ->
                new Comparison(
                        any(random, Comparison.Operator.values()), tree(random, depth - 1), tree(random, depth - 1));
            case 5, 6 ->
                new Arithmetic(
                        any(random, Arithmetic.Operator.values()), tree(random, depth - 1), tree(random, depth - 1));
            case 7 ->
                new Expression.Between(
                        tree(random, depth - 1),
                        tree(random, depth - 1),
                        tree(random, depth - 1),
                        random.nextBoolean());
            case 8 -> new Expression.In(tree(random, depth - 1), some(random, depth), random.nextBoolean());
            case 9 -> new Expression.Within(tree(random, depth - 1), window(random), random.nextBoolean());
            case 10 ->
                new Expression.Like(
                        tree(random, depth - 1),
                        tree(random, depth - 1),
                        random.nextBoolean() ? null : "!",
                        random.nextBoolean());
            case 11 -> new Expression.Matches(tree(random, depth - 1), "^it's [a-z]+$", random.nextBoolean());
            case 12 ->
                new Expression.Call(
                        any(random, "round", "coalesce", "no_such"),
                        random.nextInt(4) == 0 ? List.of() : some(random, depth));
            case 13 ->
                new Expression.Case(
                        random.nextBoolean() ? null : tree(random, depth - 1),
                        List.of(new Expression.Case.When(tree(random, depth - 1), tree(random, depth - 1))),
                        random.nextBoolean() ? null : tree(random, depth - 1));
            case 14 -> aggregate(random, depth);
            case 15 -> history(random, depth);
            case 16 ->
                new Expression.Threshold(
                        any(random, "late_minutes", "it's"), random.nextBoolean() ? List.of() : some(random, depth));
            default -> new Expression.Negation(tree(random, depth - 1));
        };
    }

    private static Expression aggregate(Random random, int depth) {
        var kind = any(random, Expression.Aggregate.Kind.values());
        boolean count = kind == Expression.Aggregate.Kind.COUNT;
        var argument = count && random.nextBoolean() ? null : tree(random, depth - 1);
        return new Expression.Aggregate(
                kind,
                argument,
                kind == Expression.Aggregate.Kind.PERCENTILE ? new BigDecimal(any(random, "95", "2.5", "0")) : null,
                count && argument != null && random.nextBoolean(),
                random.nextBoolean() ? null : tree(random, depth - 1));
    }

    private static Expression history(Random random, int depth) {
        var kind = any(random, Expression.History.Kind.values());
        boolean reaches = kind == Expression.History.Kind.REACHES;
        boolean counted = kind == Expression.History.Kind.USUAL || kind == Expression.History.Kind.SPREAD;
        return new Expression.History(
                kind,
                tree(random, depth - 1),
                counted ? Integer.valueOf(2 + random.nextInt(30)) : null,
                reaches ? tree(random, depth - 1) : null,
                reaches ? span(random) : null);
    }

    private static List<Expression> some(Random random, int depth) {
        var operands = new ArrayList<Expression>();
        for (int i = 0; i < 2 + random.nextInt(2); i++) operands.add(tree(random, depth - 1));
        return List.copyOf(operands);
    }

    private static Expression leaf(Random random) {
        return switch (random.nextInt(11)) {
            case 0 -> new Expression.ColumnName(any(random, "delay_min", "reason", "date", "last", "days", "ø"), false);
            case 1 -> new Expression.ColumnName(any(random, "Kaptein Å", "and", "a\"b", "1st"), true);
            case 2 -> Expression.number((long) random.nextInt(1000));
            case 3 -> Expression.number(new BigDecimal(any(random, "1.50", "0.001", "12345678901234567890", "1E+40")));
            case 4 -> Expression.text(any(random, "", "it's", "a\nb", "-- no comment", "😀"));
            case 5 -> new Expression.Literal(Type.TRUTH, random.nextBoolean());
            case 6 -> new Expression.Literal(Type.NULL, null);
            case 7 -> new Expression.Literal(Type.DATE, LocalDate.of(2026, 1 + random.nextInt(12), 28));
            case 8 ->
                new Expression.Literal(
                        Type.TIMESTAMP,
                        LocalDateTime.of(2026, 3, 29, random.nextInt(24), random.nextInt(60), random.nextInt(60)));
            case 9 -> new Expression.Literal(Type.TIME, LocalTime.of(random.nextInt(24), random.nextInt(60)));
            default -> Expression.duration(span(random));
        };
    }

    private static Window window(Random random) {
        Function<Span, Window> counted =
                any(random, List.<Function<Span, Window>>of(Window.Last::new, Window.Next::new, Window.OlderThan::new));
        if (random.nextBoolean()) return counted.apply(span(random));
        return new Window.CalendarUnit(
                random.nextInt(3) - 1,
                any(random, Span.Unit.DAY, Span.Unit.WEEK, Span.Unit.MONTH, Span.Unit.QUARTER, Span.Unit.YEAR));
    }

    private static Span span(Random random) {
        return new Span(random.nextInt(30), random.nextInt(40), Duration.ofSeconds(random.nextInt(100_000)));
    }

    @SafeVarargs
    private static <T> T any(Random random, T... choices) {
        return choices[random.nextInt(choices.length)];
    }

    private static <T> T any(Random random, List<T> choices) {
        return choices.get(random.nextInt(choices.size()));
    }
}
