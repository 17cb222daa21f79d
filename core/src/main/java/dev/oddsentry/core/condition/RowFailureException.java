package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.Place;

/** A condition could not be calculated on a row, such as a division by zero. The check fails; it is never "no exception". */
public final class RowFailureException extends RuntimeException {
    private final transient Place place;

    RowFailureException(String message, Place place) {
        super(message);
        this.place = place;
    }

    /** The place in the condition's text. */
    public Place place() {
        return place;
    }
}
