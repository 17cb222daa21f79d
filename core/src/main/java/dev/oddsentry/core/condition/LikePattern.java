package dev.oddsentry.core.condition;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * The pattern of SQL's {@code like}: {@code %} stands for any text, {@code _} for one character (a code point). Nothing is an escape
 * unless one is given. Takes time in proportion to pattern times text at most, whatever the pattern.
 */
final class LikePattern {
    private static final int ANY_TEXT = -1;
    private static final int ANY_CHARACTER = -2;

    private final int[] pattern;

    /** @throws ArithmeticException if an escape has nothing behind it */
    LikePattern(String pattern, @Nullable String escape) {
        int[] source = pattern.codePoints().toArray();
        int escapeCharacter = escape == null || escape.isEmpty() ? ANY_TEXT : escape.codePointAt(0);
        var compiled = new int[source.length];
        int length = 0;
        for (int i = 0; i < source.length; i++) {
            if (source[i] == escapeCharacter) {
                if (++i == source.length) throw new ArithmeticException("the pattern ends with its escape");
                compiled[length++] = source[i];
            } else compiled[length++] = source[i] == '%' ? ANY_TEXT : source[i] == '_' ? ANY_CHARACTER : source[i];
        }
        this.pattern = Arrays.copyOf(compiled, length);
    }

    boolean hasWildcard() {
        return Arrays.stream(pattern).anyMatch(each -> each == ANY_TEXT || each == ANY_CHARACTER);
    }

    /** Walks both; on a mismatch it goes back to the latest {@code %} and lets that take one character more. */
    boolean matches(String text) {
        int[] characters = text.codePoints().toArray();
        int at = 0;
        int p = 0;
        int latestAny = -1;
        int resumeAt = 0;
        while (at < characters.length) {
            if (p < pattern.length && (pattern[p] == characters[at] || pattern[p] == ANY_CHARACTER)) {
                at++;
                p++;
            } else if (p < pattern.length && pattern[p] == ANY_TEXT) {
                latestAny = p++;
                resumeAt = at;
            } else if (latestAny >= 0) {
                p = latestAny + 1;
                at = ++resumeAt;
            } else return false;
        }
        while (p < pattern.length && pattern[p] == ANY_TEXT) p++;
        return p == pattern.length;
    }
}
