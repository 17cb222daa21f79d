package dev.oddsentry.core.problem;

/**
 * A place in a text that a person wrote.
 *
 * @param offset UTF-16 offset from the start of the text, from 0
 * @param line from 1
 * @param column in UTF-16 units from 1
 * @param length in UTF-16 units; 0 at the end of the text
 */
public record Place(int offset, int line, int column, int length) {

    /** The place of {@code length} characters at {@code offset} in {@code text}; an offset past the end means the end. */
    public static Place in(String text, int offset, int length) {
        int end = Math.min(offset, text.length());
        int line = 1;
        int lineStart = 0;
        for (int i = 0; i < end; i++) {
            if (text.charAt(i) == '\n') {
                line++;
                lineStart = i + 1;
            }
        }
        return new Place(end, line, end - lineStart + 1, length);
    }
}
