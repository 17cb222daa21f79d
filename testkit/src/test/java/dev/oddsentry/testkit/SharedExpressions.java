package dev.oddsentry.testkit;

import java.util.List;
import java.util.Random;
import java.util.function.Supplier;

/**
 * Random conditions of the part of the language that SQL shares, each written twice: as ours, and for PostgreSQL in such a way that the
 * stated differences fall away (numbers as {@code numeric}, no implicit escape in {@code like}, dates subtracted as timestamps).
 *
 * <p>Every comparison has a column in it, and what can fail is calculated from columns: PostgreSQL folds constants before it looks at any
 * row, and would fail, or not fail, without regard to the order of {@code and}, {@code or} and {@code case}.
 */
final class SharedExpressions {
    private final Random random;

    SharedExpressions(Random random) {
        this.random = random;
    }

    record Pair(String ours, String postgres) {
        static Pair same(String text) {
            return new Pair(text, text);
        }

        Pair in(String before, String after) {
            return new Pair(before + ours + after, before + postgres + after);
        }
    }

    private static Pair join(String before, Pair left, String between, Pair right, String after) {
        return new Pair(
                before + left.ours + between + right.ours + after,
                before + left.postgres + between + right.postgres + after);
    }

    @SafeVarargs
    private <T> T any(T... choices) {
        return choices[random.nextInt(choices.length)];
    }

    @SafeVarargs
    private Pair oneOf(Supplier<Pair>... choices) {
        return any(choices).get();
    }

    Pair condition(int depth) {
        if (depth == 0) return comparison(0);
        return oneOf(
                () -> join("(", condition(depth - 1), " and ", condition(depth - 1), ")"),
                () -> join("(", condition(depth - 1), " or ", condition(depth - 1), ")"),
                () -> condition(depth - 1).in("(not ", ")"),
                () -> comparison(depth - 1),
                () -> comparison(depth - 1),
                () -> truthCase(depth - 1));
    }

    private Pair truthCase(int depth) {
        var when = condition(depth);
        var then = condition(depth);
        var otherwise = condition(depth);
        return new Pair(
                "case when " + when.ours + " then " + then.ours + " else " + otherwise.ours + " end",
                "case when " + when.postgres + " then " + then.postgres + " else " + otherwise.postgres + " end");
    }

    private Pair comparison(int depth) {
        String sign = " " + any("=", "<>", "<", "<=", ">", ">=") + " ";
        String not = any("", " not");
        return oneOf(
                () -> join("(", numberOfColumn(depth), sign, number(depth), ")"),
                () -> join("(", numberOfColumn(depth), sign, number(depth), ")"),
                () -> join("(", textOfColumn(depth), sign, text(depth), ")"),
                () -> join("(", moment(), sign, momentOrLiteral(), ")"),
                () -> join("(", elapsed(), sign, duration(List.of("minutes", "hours", "days")), ")"),
                () -> Pair.same("b"),
                () -> oneOf(() -> numberOfColumn(depth), () -> textOfColumn(depth), this::moment)
                        .in("(", " is" + not + " null)"),
                () -> join(
                        "(",
                        numberOfColumn(depth),
                        not + " between ",
                        join("", number(depth), " and ", number(depth), ""),
                        ")"),
                () -> join(
                        "(", numberColumn(), not + " in (", join("", numberLiteral(), ", ", numberColumn(), ""), "))"),
                () -> join("(", textColumn(), not + " in (", join("", textLiteral(), ", ", textColumn(), ""), "))"),
                () -> like(depth, not),
                () -> window(not));
    }

    private Pair like(int depth, String not) {
        var text = textOfColumn(depth);
        String pattern = any("%", "a%", "%b", "_", "__%", "a_c", "%😀%", "%å_", "100!%", "%!_%", "");
        boolean escaped = pattern.contains("!");
        String escape = escaped ? " escape '!'" : "";
        return new Pair(
                "(" + text.ours + not + " like '" + pattern + "'" + escape + ")",
                "(" + text.postgres + not + " like '" + pattern + "'" + (escaped ? escape : " escape ''") + ")");
    }

    private Pair window(String not) {
        int hours = 1 + random.nextInt(3000);
        return new Pair(
                "(tz" + not + " in last " + hours + " hours)",
                "(" + not.strip() + " (tz >= slot() - interval '" + hours + " hours' and tz < slot()))");
    }

    private Pair number(int depth) {
        return depth == 0
                ? oneOf(this::numberLiteral, this::numberColumn)
                : oneOf(this::numberLiteral, () -> numberOfColumn(depth));
    }

    private Pair numberOfColumn(int depth) {
        if (depth == 0) return numberColumn();
        var column = numberColumn();
        return oneOf(
                () -> column,
                () -> join("(", column, " + ", number(depth - 1), ")"),
                () -> join("(", column, " - ", number(depth - 1), ")"),
                () -> join("(", column, " * ", number(depth - 1), ")"),
                () -> new Pair("(i / 8)", "((i::numeric + 0.000000) / 8)"),
                () -> new Pair(
                        "(8 / i)",
                        "case when i in (0, 1, 2, 4, 5, 8, -1) then 8.0000000000 / i::numeric else round(8.0000000000 / i::numeric, 34) end"),
                () -> new Pair("div(n, i)", "div(n, i::numeric)"),
                () -> new Pair("mod(n, i)", "mod(n, i::numeric)"),
                () -> numberOfColumn(depth - 1).in("(-", ")"),
                () -> numberOfColumn(depth - 1).in("abs(", ")"),
                () -> numberOfColumn(depth - 1).in("round(", ")"),
                () -> numberOfColumn(depth - 1).in("round(", ", " + (random.nextInt(5) - 2) + ")"),
                () -> numberOfColumn(depth - 1).in("floor(", ")"),
                () -> numberOfColumn(depth - 1).in("ceil(", ")"),
                () -> join("coalesce(", column, ", ", number(depth - 1), ")"),
                () -> join("nullif(", column, ", ", number(depth - 1), ")"),
                () -> new Pair("number(v)", "(v::numeric)"),
                () -> new Pair("days_between(d, e)", "((e - d)::numeric)"),
                () -> {
                    var text = textOfColumn(depth - 1);
                    return new Pair("length(" + text.ours + ")", "(length(" + text.postgres + ")::numeric)");
                });
    }

    private Pair numberColumn() {
        return any(Pair.same("n"), Pair.same("m"), new Pair("i", "(i::numeric)"));
    }

    private Pair numberLiteral() {
        String text =
                any("1", "2", "15", "0.1", "2.50", "1000000", "12345678901234567890.5", "0.000000000000000000001");
        return new Pair(text, "(" + text + "::numeric)");
    }

    private Pair text(int depth) {
        return oneOf(this::textLiteral, () -> textOfColumn(depth));
    }

    private Pair textOfColumn(int depth) {
        if (depth == 0) return textColumn();
        return oneOf(
                this::textColumn,
                () -> join("(", textColumn(), " || ", text(depth - 1), ")"),
                () -> Pair.same(any("lower(a)", "upper(a)")),
                () -> new Pair("trim(t)", "btrim(t, ' ')"),
                () -> join("coalesce(", textColumn(), ", ", text(depth - 1), ")"));
    }

    private Pair textColumn() {
        return any(Pair.same("t"), Pair.same("a"), new Pair("c", "(c::text)"));
    }

    private Pair textLiteral() {
        String text = any("", " ", "a", "abc", "ab ", "it''s", "å", "😀", "ﬀ", "10%");
        return new Pair("'" + text + "'", "('" + text + "'::text)");
    }

    private Pair moment() {
        return oneOf(
                () -> Pair.same(any("d", "e", "ts", "tz")),
                () -> shifted("d", duration(List.of("days", "weeks", "months"))),
                () -> shifted("ts", duration(List.of("minutes", "hours", "days", "months"))),
                () -> shifted("tz", duration(List.of("minutes", "hours"))));
    }

    private Pair shifted(String column, Pair duration) {
        return join("(", Pair.same(column), any(" + ", " - "), duration, ")");
    }

    private Pair momentOrLiteral() {
        return oneOf(
                this::moment,
                () -> any(
                        new Pair("today()", "((slot() at time zone 'Europe/Oslo')::date)"),
                        new Pair("now()", "slot()")),
                () -> Pair.same(
                        any("date '2026-03-29'", "timestamp '2026-10-25 12:00'", "timestamp '2026-03-29 02:30'")));
    }

    private Pair elapsed() {
        return any(
                new Pair("(e - d)", "(e::timestamp - d::timestamp)"),
                Pair.same("(ts - timestamp '2026-03-01 00:00')"),
                new Pair("(ts - d)", "(ts - d::timestamp)"),
                Pair.same("(tz - tz2)"));
    }

    private Pair duration(List<String> units) {
        String unit = units.get(random.nextInt(units.size()));
        int amount = random.nextInt(80);
        return new Pair(amount + " " + unit, "interval '" + amount + " " + unit + "'");
    }
}
