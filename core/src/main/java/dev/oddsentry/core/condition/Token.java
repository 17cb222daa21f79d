package dev.oddsentry.core.condition;

/**
 * @param text the token's meaning: a word in lower case, a text without its quotes, a sign as canonical sign
 * @param seen what stood in the source
 */
record Token(Kind kind, String text, String seen, int offset) {
    enum Kind {
        WORD,
        QUOTED_NAME,
        NUMBER,
        TEXT,
        SIGN,
        END
    }

    int length() {
        return seen.length();
    }

    int end() {
        return offset + seen.length();
    }

    boolean isWord(String word) {
        return kind == Kind.WORD && text.equals(word);
    }

    boolean isSign(String sign) {
        return kind == Kind.SIGN && text.equals(sign);
    }

    String describe() {
        return kind == Kind.END ? "end of the text" : "\"" + seen + "\"";
    }
}
