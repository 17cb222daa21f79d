package dev.oddsentry.core.condition;

import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Reads lengths of time and windows: {@code 7 days}, {@code last 7 days}, {@code previous month}. */
final class WindowParser {
    private static final Map<String, Integer> DISTANCES = Map.of("previous", -1, "this", 0, "next", 1);

    private final TokenStream tokens;

    WindowParser(TokenStream tokens) {
        this.tokens = tokens;
    }

    @Nullable
    Window takeWindow() {
        Token first = tokens.peek();
        if (tokens.take("last")) return new Window.Last(length());
        boolean counted = tokens.peek(1).kind() == Token.Kind.NUMBER;
        if (first.isWord("next") && counted) {
            tokens.next();
            return new Window.Next(length());
        }
        Integer distance = first.kind() == Token.Kind.WORD ? DISTANCES.get(first.text()) : null;
        if (distance == null) return null;
        tokens.next();
        return new Window.CalendarUnit(distance, calendarUnit());
    }

    /** A whole number and a unit, or several joined: {@code 1 day 12 hours}. */
    Span length() {
        if (tokens.peek().kind() != Token.Kind.NUMBER) throw tokens.refuse("a length of time such as 7 days");
        Span length = Span.ZERO;
        while (tokens.peek().kind() == Token.Kind.NUMBER) length = length.plus(one());
        return length;
    }

    private Span one() {
        Token amount = tokens.next();
        Span.Unit unit = Words.UNITS.get(tokens.peek().text());
        if (unit == null || tokens.peek().kind() != Token.Kind.WORD) {
            throw tokens.refuse("a unit of time: seconds, minutes, hours, days, weeks, months, quarters or years");
        }
        tokens.next();
        try {
            return Span.of(Long.parseLong(amount.text()), unit);
        } catch (NumberFormatException | ArithmeticException tooLargeOrBroken) {
            throw tokens.refuseBecause("\"" + amount.text()
                    + "\" before this cannot be an amount of time; write a whole number, or a smaller unit");
        }
    }

    private Span.Unit calendarUnit() {
        Span.Unit unit = Words.UNITS.get(tokens.peek().text());
        if (unit == null || unit.isClock()) throw tokens.refuse("day, week, month, quarter or year");
        tokens.next();
        return unit;
    }
}
