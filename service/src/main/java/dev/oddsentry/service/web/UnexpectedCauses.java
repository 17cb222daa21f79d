package dev.oddsentry.service.web;

import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.Optional;
import java.util.Set;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;

/** Exceptions that come from deep inside and yet say what the request did, or that the service is too busy. */
final class UnexpectedCauses {
    /** A character that the database cannot hold, such as NUL, in a text or in JSON. */
    private static final Set<String> UNTRANSLATABLE = Set.of("22021", "22P05");

    /** No line to it, too many lines, or it is going down or coming up: classes of SQLSTATE, of the standard and of PostgreSQL. */
    private static final Set<String> OUT_OF_REACH = Set.of("08", "53", "57");

    private static final int MOST_CAUSES = 20;

    private UnexpectedCauses() {}

    /** A status and a sentence for the person who asked. */
    record Explanation(HttpStatus status, String words) {}

    static Optional<Explanation> explain(Throwable unexpected) {
        Throwable cause = unexpected;
        for (int i = 0; cause != null && i < MOST_CAUSES; i++, cause = cause.getCause()) {
            var explanation = explainOne(cause);
            if (explanation != null) return Optional.of(explanation);
        }
        return Optional.empty();
    }

    private static @Nullable Explanation explainOne(Throwable cause) {
        return switch (cause) {
            case StackOverflowError _ -> new Explanation(HttpStatus.BAD_REQUEST, "The request is nested too deeply.");
            case InvalidParameterException _ ->
                new Explanation(
                        HttpStatus.BAD_REQUEST,
                        "The query of the address is malformed: each part is name=value, percent-encoded, with & between.");
            case SQLTransientConnectionException _ -> outOfReach();
            case SQLException e
            when e.getSQLState() != null && OUT_OF_REACH.stream().anyMatch(e.getSQLState()::startsWith) -> outOfReach();
            case SQLException e
            when e.getSQLState() != null && UNTRANSLATABLE.contains(e.getSQLState()) ->
                new Explanation(
                        HttpStatus.BAD_REQUEST, "The request contains a character that cannot be stored, such as NUL.");
            default -> null;
        };
    }

    private static Explanation outOfReach() {
        return new Explanation(
                HttpStatus.SERVICE_UNAVAILABLE,
                "The service is too busy, or its database does not answer. Try again in a minute.");
    }
}
