package dev.oddsentry.extracts;

/** Text as XML can hold it. */
public final class XmlText {
    private static final char UNKNOWN = '\ufffd';

    private XmlText() {}

    /** The same text, with a mark for each control and half of a pair that XML has no way to write; most texts have none. */
    public static String clean(String text) {
        for (int i = 0; i < text.length(); i++) if (!isFine(text, i)) return cleaned(text);
        return text;
    }

    private static String cleaned(String text) {
        var clean = new StringBuilder(text.length());
        for (int i = 0; i < text.length(); i++) clean.append(isFine(text, i) ? text.charAt(i) : UNKNOWN);
        return clean.toString();
    }

    private static boolean isFine(String text, int at) {
        char c = text.charAt(at);
        if (c < ' ') return c == '\t' || c == '\n' || c == '\r';
        if (c < Character.MIN_SURROGATE) return true;
        if (Character.isHighSurrogate(c))
            return at + 1 < text.length() && Character.isLowSurrogate(text.charAt(at + 1));
        if (Character.isLowSurrogate(c)) return at > 0 && Character.isHighSurrogate(text.charAt(at - 1));
        return c < '\ufffe';
    }
}
