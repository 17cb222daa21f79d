package dev.oddsentry.service.sources;

import java.sql.SQLException;

/** All connections of a lane were in use for as long as one waits for them; the source itself may be well. */
public final class NoConnectionFreeException extends SQLException {
    NoConnectionFreeException(Source source, Lane lane) {
        super(words(source, lane));
    }

    private static String words(Source source, Lane lane) {
        int number = source.connectionsFor(lane);
        String all = number == 1 ? "The only connection" : "All " + number + " connections";
        return switch (lane) {
            case BY_HAND ->
                all + " of the source " + source.name()
                        + " for queries run by hand stayed in use for 10 seconds. Try again later, or stop a query that is running.";
            case CHECKS -> all + " of the source " + source.name() + " for checks stayed in use for 10 seconds.";
        };
    }
}
