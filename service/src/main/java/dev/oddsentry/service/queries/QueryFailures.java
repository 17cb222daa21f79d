package dev.oddsentry.service.queries;

import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.sources.NoConnectionFreeException;
import dev.oddsentry.service.sources.NotOneQueryException;
import dev.oddsentry.service.sources.Source;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** What a driver's exception means, in words for the analyst. */
final class QueryFailures {
    private static final String QUERY_CANCELLED = "57014";

    private QueryFailures() {}

    static QueryFailureException explain(Source source, RunningQuery running, SQLException e) {
        var cancelled = running.failure(e);
        if (cancelled != null) return cancelled;
        if (QUERY_CANCELLED.equals(e.getSQLState())) {
            return new QueryFailureException(FailureKind.TIME_LIMIT, overLimit(source.name(), running.limit()), e);
        }
        if (e instanceof NotOneQueryException)
            return new QueryFailureException(FailureKind.QUERY_INVALID, firstLine(e), e);
        if (e instanceof NoConnectionFreeException)
            return new QueryFailureException(FailureKind.SOURCE_BUSY, firstLine(e), e);
        if (String.valueOf(e.getMessage()).contains("maxResultBuffer"))
            return new QueryFailureException(
                    FailureKind.RESULT_TOO_LARGE,
                    "The rows of the result are too large to be read: a row may have " + RowSize.MOST_OF_ROW
                            + " characters in all. Select fewer or shorter columns, for example left(column, 1000).",
                    e);
        if (e instanceof SQLTransientConnectionException || isConnectionFailure(e.getSQLState())) {
            return new QueryFailureException(
                    FailureKind.SOURCE_UNREACHABLE,
                    "The source " + source.name() + " could not be reached: " + firstLine(deepest(e)),
                    e);
        }
        return new QueryFailureException(
                FailureKind.SOURCE_REFUSED, "The source " + source.name() + " refused the query: " + firstLine(e), e);
    }

    static String overLimit(String source, Duration limit) {
        return "The source " + source + " did not answer within " + limit.toSeconds()
                + " s, so the query was cancelled there.";
    }

    private static boolean isConnectionFailure(@Nullable String state) {
        return state != null && (state.startsWith("08") || state.startsWith("57P"));
    }

    private static Throwable deepest(Throwable e) {
        return e.getCause() == null ? e : deepest(e.getCause());
    }

    private static String firstLine(Throwable e) {
        return String.valueOf(e.getMessage()).lines().findFirst().orElse("").strip();
    }
}
