package dev.oddsentry.core.memory;

/**
 * What the next good check owes to what people did between two checks. Two things are joined in it: what an edit did to memory, of which the stronger counts,
 * and the report of what is there that a person asked for, of which the last counts.
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
    /** Both of that: other conditions, and everything that is open is told. */
    RE_JUDGE_TELL_OPEN,
    /** Whatever there is, is taken as known. */
    TAKE_AS_KNOWN,
    /** Another identity: what was found under the old one clears without a word, the rest is told. */
    START_ANEW,
    /** Another identity, and whatever there is, is taken as known. */
    START_ANEW_AS_KNOWN;

    /** True where what ends, ends since nobody asks for it any more, and not since it was put right. */
    public boolean endsWithoutWord() {
        return this == RE_JUDGE || this == RE_JUDGE_TELL_OPEN || takesAsKnown() || startsAnew();
    }

    public boolean takesAsKnown() {
        return this == TAKE_AS_KNOWN || this == START_ANEW_AS_KNOWN;
    }

    public boolean startsAnew() {
        return this == START_ANEW || this == START_ANEW_AS_KNOWN;
    }

    public boolean tellsOpen() {
        return this == TELL_OPEN || this == RE_JUDGE_TELL_OPEN;
    }

    /** True where fingerprints are of other columns than before, so that their difference is no change. */
    public boolean hasOtherColumns() {
        return this == RE_BASE || this == RE_JUDGE || this == RE_JUDGE_TELL_OPEN;
    }

    private enum Edit {
        NONE,
        OTHER_COLUMNS,
        OTHER_CONDITIONS,
        OTHER_IDENTITY
    }

    private enum Wish {
        NONE,
        OPEN,
        KNOWN
    }

    private Edit edit() {
        return switch (this) {
            case ORDINARY, TELL_OPEN, TAKE_AS_KNOWN -> Edit.NONE;
            case RE_BASE -> Edit.OTHER_COLUMNS;
            case RE_JUDGE, RE_JUDGE_TELL_OPEN -> Edit.OTHER_CONDITIONS;
            case START_ANEW, START_ANEW_AS_KNOWN -> Edit.OTHER_IDENTITY;
        };
    }

    private Wish wish() {
        return switch (this) {
            case ORDINARY, RE_BASE, RE_JUDGE, START_ANEW -> Wish.NONE;
            case TELL_OPEN, RE_JUDGE_TELL_OPEN -> Wish.OPEN;
            case TAKE_AS_KNOWN, START_ANEW_AS_KNOWN -> Wish.KNOWN;
        };
    }

    /** Both, where {@code later} was done after this. */
    public Transition and(Transition later) {
        var wish = later.wish() == Wish.NONE ? wish() : later.wish();
        return of(edit().compareTo(later.edit()) >= 0 ? edit() : later.edit(), wish);
    }

    private static Transition of(Edit edit, Wish wish) {
        return switch (edit) {
            case OTHER_IDENTITY -> wish == Wish.KNOWN ? START_ANEW_AS_KNOWN : START_ANEW;
            case OTHER_CONDITIONS ->
                switch (wish) {
                    case NONE -> RE_JUDGE;
                    case OPEN -> RE_JUDGE_TELL_OPEN;
                    case KNOWN -> TAKE_AS_KNOWN;
                };
            case OTHER_COLUMNS ->
                switch (wish) {
                    case NONE -> RE_BASE;
                    case OPEN -> TELL_OPEN;
                    case KNOWN -> TAKE_AS_KNOWN;
                };
            case NONE ->
                switch (wish) {
                    case NONE -> ORDINARY;
                    case OPEN -> TELL_OPEN;
                    case KNOWN -> TAKE_AS_KNOWN;
                };
        };
    }
}
