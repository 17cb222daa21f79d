package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** First stage: text to tokens. Comments are those of SQL, {@code -- to the end of the line}. */
final class Lexer {
    private static final List<String> TWO_CHARACTER_SIGNS = List.of("<=", ">=", "<>", "!=", "||");
    /** Longer than any condition that a person can read; a list of values is better a column of the query. */
    private static final int MOST_CHARACTERS = 1_000_000;

    private static final String ONE_CHARACTER_SIGNS = "+-*/=<>(),";

    private final String source;
    private int at;

    private Lexer(String source) {
        this.source = source;
    }

    /** The tokens, with an {@code END} token last. */
    static List<Token> tokens(String source) {
        var lexer = new Lexer(source);
        if (source.length() > MOST_CHARACTERS)
            throw lexer.refused("the condition has more than " + MOST_CHARACTERS + " characters", MOST_CHARACTERS, 1);
        var tokens = new ArrayList<Token>();
        do tokens.add(lexer.next());
        while (tokens.getLast().kind() != Token.Kind.END);
        return tokens;
    }

    private Token next() {
        skipBlanksAndComments();
        if (at == source.length()) return new Token(Token.Kind.END, "", "", at);
        char c = source.charAt(at);
        if (c == '\'') return quoted('\'', Token.Kind.TEXT, "text");
        if (c == '"') return quoted('"', Token.Kind.QUOTED_NAME, "quoted name");
        if (isDigit(c) || (c == '.' && at + 1 < source.length() && isDigit(source.charAt(at + 1)))) return number();
        if (Character.isUnicodeIdentifierStart(source.codePointAt(at)) || c == '_') return word();
        return sign();
    }

    private void skipBlanksAndComments() {
        while (at < source.length()) {
            if (Character.isWhitespace(source.charAt(at)) || source.charAt(at) == '\u00a0') at++;
            else if (source.startsWith("--", at)) {
                int newline = source.indexOf('\n', at);
                at = newline < 0 ? source.length() : newline;
            } else return;
        }
    }

    private Token quoted(char quote, Token.Kind kind, String what) {
        int start = at++;
        var value = new StringBuilder();
        while (at < source.length()) {
            char c = source.charAt(at++);
            if (c != quote) value.append(c);
            else if (at < source.length() && source.charAt(at) == quote) {
                value.append(quote);
                at++;
            } else return token(kind, value.toString(), start);
        }
        throw refused("this " + what + " is not closed: expected another " + quote, start, source.length() - start);
    }

    private Token number() {
        int start = at;
        skipDigits();
        if (at < source.length() && source.charAt(at) == '.') {
            at++;
            skipDigits();
        }
        if (at < source.length() && (source.charAt(at) == 'e' || source.charAt(at) == 'E')) {
            int exponent = at + 1;
            if (exponent < source.length() && "+-".indexOf(source.charAt(exponent)) >= 0) exponent++;
            if (exponent < source.length() && isDigit(source.charAt(exponent))) {
                at = exponent;
                skipDigits();
            }
        }
        return token(Token.Kind.NUMBER, source.substring(start, at), start);
    }

    private void skipDigits() {
        while (at < source.length() && isDigit(source.charAt(at))) at++;
    }

    private Token word() {
        int start = at;
        while (at < source.length() && isWordPart(source.codePointAt(at)))
            at += Character.charCount(source.codePointAt(at));
        return token(Token.Kind.WORD, source.substring(start, at).toLowerCase(Locale.ROOT), start);
    }

    private Token sign() {
        int start = at;
        for (String sign : TWO_CHARACTER_SIGNS) {
            if (source.startsWith(sign, at)) {
                at += 2;
                return token(Token.Kind.SIGN, sign.equals("!=") ? "<>" : sign, start);
            }
        }
        if (ONE_CHARACTER_SIGNS.indexOf(source.charAt(at)) >= 0) {
            at++;
            return token(Token.Kind.SIGN, source.substring(start, at), start);
        }
        int length = Character.charCount(source.codePointAt(at));
        String seen = source.substring(at, at + length);
        String advice = switch (seen) {
            case "&" -> "; write and";
            case "|" -> "; write or, or || to join texts";
            case "!" -> "; write not";
            case "’", "‘", "“", "”", "`" -> "; write texts in straight quotes: 'text'";
            default -> "";
        };
        throw refused("unexpected character " + seen + advice, at, length);
    }

    private Token token(Token.Kind kind, String text, int start) {
        return new Token(kind, text, source.substring(start, at), start);
    }

    private static boolean isDigit(char c) {
        return c >= '0' && c <= '9';
    }

    private static boolean isWordPart(int codePoint) {
        return Character.isUnicodeIdentifierPart(codePoint) || codePoint == '$';
    }

    private ConditionSyntaxException refused(String message, int offset, int length) {
        return new ConditionSyntaxException(Problem.error(message, "", Place.in(source, offset, length)));
    }
}
