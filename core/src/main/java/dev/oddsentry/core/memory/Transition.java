package dev.oddsentry.core.memory;

/**
 * What the next good check owes to something that a person did between two checks, weakest first: of two, the stronger counts.
 */
public enum Transition {
    /** Nothing was done that matters. */
    ORDINARY,
    /** Other watched columns: fingerprints are taken as they are, without news of that. */
    RE_BASE,
    /** Made active again: everything that is open is told, whether told before or not. */
    TELL_OPEN,
    /** Other conditions: what is found is told; what is no longer asked for clears without a word. */
    RE_JUDGE,
    /** Whatever there is, is taken as known. */
    TAKE_AS_KNOWN,
    /** Another identity: what was found under the old one clears without a word, the rest is told. */
    START_ANEW,
    /** Another identity, and whatever there is, is taken as known. */
    START_ANEW_AS_KNOWN;

    /** True where what ends, ends since nobody asks for it any more, and not since it was put right. */
    public boolean endsWithoutWord() {
        return this == RE_JUDGE || takesAsKnown() || startsAnew();
    }

    public boolean takesAsKnown() {
        return this == TAKE_AS_KNOWN || this == START_ANEW_AS_KNOWN;
    }

    public boolean startsAnew() {
        return this == START_ANEW || this == START_ANEW_AS_KNOWN;
    }

    public Transition strongerOf(Transition other) {
        return compareTo(other) >= 0 ? this : other;
    }
}
