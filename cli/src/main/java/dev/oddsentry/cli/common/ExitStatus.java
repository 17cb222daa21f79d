package dev.oddsentry.cli.common;

import dev.oddsentry.cli.client.ApiException;

/** Exit statuses of {@code odd}. */
public final class ExitStatus {
    /** Done, or the answer is yes. */
    public static final int DONE = 0;

    /** The answer is no, something differs or needs attention, or the service refused. */
    public static final int NO = 1;

    /** Wrong use of the command. */
    public static final int WRONG_USE = 2;

    /** The service cannot be reached, or does not allow it. */
    public static final int NOT_REACHED = 3;

    /** A definition, condition or table is invalid. */
    public static final int INVALID = 4;

    private ExitStatus() {}

    public static int of(ApiException refused) {
        if (refused.isAboutAccess() || refused.isUnavailable()) return NOT_REACHED;
        return refused.problems().isEmpty() ? NO : INVALID;
    }
}
