package dev.oddsentry.core.extract;

/**
 * The colours a severity may have: each is told from the others, and read on white at a contrast of at least 4.5 to 1. Printed in black
 * the sign and the word remain.
 */
public enum Tone {
    RED("#b3412e"),
    AMBER("#8a5400"),
    GREY("#5d6b78"),
    GREEN("#2f7d6b"),
    BLUE("#2b62a0"),
    VIOLET("#7a4a9c");

    private final String onWhite;

    Tone(String onWhite) {
        this.onWhite = onWhite;
    }

    /** As {@code #rrggbb}, for text on white. */
    public String onWhite() {
        return onWhite;
    }
}
