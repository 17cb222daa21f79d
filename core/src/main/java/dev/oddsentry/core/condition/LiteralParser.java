package dev.oddsentry.core.condition;

import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.core.value.Type;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.function.Function;
import java.util.function.Supplier;

/** Reads literals: numbers, texts, {@code true}, {@code null}, {@code date '…'}, {@code timestamp '…'}, {@code 7 days}. */
final class LiteralParser {
    /** More digits than any measure has; it keeps {@code 1e999999999 + 1} from filling the memory. */
    private static final int MOST_DIGITS = 1000;

    private final TokenStream tokens;

    LiteralParser(TokenStream tokens) {
        this.tokens = tokens;
    }

    Expression takeLiteralOr(Supplier<Expression> other) {
        Token token = tokens.peek();
        return switch (token.kind()) {
            case NUMBER -> numberOrDuration();
            case TEXT -> Expression.text(tokens.next().text());
            case WORD -> wordLiteralOr(token, other);
            case QUOTED_NAME, SIGN, END -> other.get();
        };
    }

    private Expression numberOrDuration() {
        Token unit = tokens.peek(1);
        if (unit.kind() == Token.Kind.WORD && Words.UNITS.containsKey(unit.text())) {
            return Expression.duration(new WindowParser(tokens).length());
        }
        var exact = Numbers.parse(tokens.peek().text(), MOST_DIGITS)
                .orElseThrow(() -> tokens.refuseBecause("this number has more than " + MOST_DIGITS + " digits"));
        tokens.next();
        return Expression.number(
                exact.scale() == 0 && exact.precision() < 19 ? (Object) exact.longValueExact() : exact);
    }

    private Expression wordLiteralOr(Token word, Supplier<Expression> other) {
        boolean beforeText = tokens.peek(1).kind() == Token.Kind.TEXT;
        return switch (word.text()) {
            case "true", "false" -> {
                tokens.next();
                yield new Expression.Literal(Type.TRUTH, word.text().equals("true"));
            }
            case "null" -> {
                tokens.next();
                yield new Expression.Literal(Type.NULL, null);
            }
            case "date" -> beforeText ? moment(Type.DATE, LocalDate::parse, "date '2026-03-01'") : other.get();
            case "time" -> beforeText ? moment(Type.TIME, LocalTime::parse, "time '06:30'") : other.get();
            case "timestamp" ->
                beforeText
                        ? moment(
                                Type.TIMESTAMP,
                                text -> LocalDateTime.parse(text.replace(' ', 'T')),
                                "timestamp '2026-03-01 06:30'")
                        : other.get();
            default -> other.get();
        };
    }

    private Expression moment(Type type, Function<String, Object> read, String example) {
        tokens.next();
        try {
            Object value = read.apply(tokens.peek().text().trim());
            tokens.next();
            return new Expression.Literal(type, value);
        } catch (DateTimeException notOne) {
            throw tokens.refuseBecause(tokens.peek().seen() + " is not " + type.word() + "; write it like " + example);
        }
    }
}
