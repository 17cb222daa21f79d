package dev.oddsentry.service.sources;

import java.sql.SQLException;

/** The text is not one statement that returns rows; nothing of it was sent to the server for execution. */
public final class NotOneQueryException extends SQLException {
    private static final String SYNTAX_ERROR = "42601";

    public NotOneQueryException(String message) {
        super(message, SYNTAX_ERROR);
    }
}
