package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.SourceConnection;
import dev.oddsentry.service.sources.SourcePools;
import java.sql.PreparedStatement;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Runs a query in one read-only transaction on its source and streams the rows to the end. Over the source's time limit it is
 * cancelled there; over its row cap it fails. Either way the caller learns that it did not see everything.
 */
@Component
public class QueryRunner {
    /** Rows, a power of two less one. */
    private static final int TELL_EVERY = 0xff;

    private final SourcePools pools;
    private final HandRuns handRuns;
    private final Clock clock;

    QueryRunner(SourcePools pools, HandRuns handRuns, Clock clock) {
        this.pools = pools;
        this.handRuns = handRuns;
        this.clock = clock;
    }

    /** Takes the rows of one result, in order. */
    public interface RowSink {
        void accept(@Nullable Object[] row);
    }

    /**
     * @param took from asking until the last row was taken
     * @param readAt when the source was asked, by its answer's standing the instant of all rows
     */
    public record Reading(Columns columns, long rows, Instant readAt, Duration took) {}

    /**
     * Reads a result that its caller keeps as a whole, such as addresses or choices.
     *
     * @param sinkFor given the columns, before any row, the taker of the rows
     * @throws QueryFailureException if it could not be run to its end, or is too large to be kept
     */
    public Reading readAll(Source source, QueryDefinition query, QueryInput input, Function<Columns, RowSink> sinkFor) {
        return read(
                source,
                query,
                input,
                columns -> {
                    var sink = sinkFor.apply(columns);
                    long[] held = {0, 0};
                    return row -> {
                        held[0] += RowSize.of(row, columns, ++held[1]);
                        if (held[0] > RowSize.MOST_HELD)
                            throw new QueryFailureException(
                                    FailureKind.RESULT_TOO_LARGE,
                                    "The result of the query " + query.name()
                                            + " is too large: max " + RowSize.MOST_HELD
                                            + " characters. Select fewer rows or columns.");
                        sink.accept(row);
                    };
                },
                new RunningQuery(source.timeLimit()));
    }

    /**
     * Reads a result row by row.
     *
     * @param sinkFor given the columns, before any row, the taker of the rows
     * @param running counts the rows that were read, and lets others cancel the query
     * @throws QueryFailureException if it could not be run to its end
     */
    public Reading read(
            Source source,
            QueryDefinition query,
            QueryInput input,
            Function<Columns, RowSink> sinkFor,
            RunningQuery running) {
        var bound = BoundSql.of(query, input.values());
        return handRuns.watch(
                source.name(), query.name(), running, _ -> read(source, bound, input.zone(), sinkFor, running));
    }

    private Reading read(
            Source source, BoundSql bound, ZoneId zone, Function<Columns, RowSink> sinkFor, RunningQuery running) {
        Instant readAt = clock.instant();
        try (var connection = pools.open(source, Asker.lane())) {
            connection.limitEachRead(running.limit());
            connection.useZone(zone);
            try (var statement = prepare(connection, bound, running.limit())) {
                requireRows(statement.getMetaData());
                return stream(connection, statement, source, readAt, sinkFor, running);
            }
        } catch (SQLException e) {
            throw QueryFailures.explain(source, running, e);
        }
    }

    private static PreparedStatement prepare(SourceConnection connection, BoundSql bound, Duration limit)
            throws SQLException {
        var statement = connection.prepare(bound.sql());
        statement.setFetchSize(FetchSize.FEW);
        statement.setQueryTimeout(Math.toIntExact(Math.max(1, limit.toSeconds())));
        bound.bind(statement);
        return statement;
    }

    private static Reading stream(
            SourceConnection connection,
            PreparedStatement statement,
            Source source,
            Instant readAt,
            Function<Columns, RowSink> sinkFor,
            RunningQuery running)
            throws SQLException {
        try {
            running.began(statement);
            return stream(statement, source, readAt, sinkFor, running);
        } catch (SQLException | RuntimeException | Error failed) {
            connection.distrust();
            throw failed;
        } finally {
            running.ended();
            // A cancellation that comes late must not meet the next query of the connection.
            if (running.isCancelled()) connection.distrust();
        }
    }

    private static Reading stream(
            PreparedStatement statement,
            Source source,
            Instant readAt,
            Function<Columns, RowSink> sinkFor,
            RunningQuery running)
            throws SQLException {
        try (var rows = statement.executeQuery()) {
            var result = ResultColumns.of(rows.getMetaData());
            RowSink sink = sinkFor.apply(result.columns());
            var fetchSize = new FetchSize();
            long count = 0;
            while (rows.next()) {
                if (++count > source.mostRows()) {
                    throw new QueryFailureException(
                            FailureKind.RESULT_TOO_LARGE,
                            "The result has more than " + source.mostRows()
                                    + " rows, the most that the source " + source.name()
                                    + " allows. Nothing was evaluated. Narrow the query or raise the row limit.");
                }
                var row = result.read(rows);
                fetchSize.read(RowSize.of(row, result.columns(), count), rows);
                sink.accept(row);
                if ((count & TELL_EVERY) == 0 || running.isCancelled()) running.read(count);
            }
            running.read(count);
            return new Reading(result.columns(), count, readAt, running.took());
        }
    }

    /**
     * The columns that the query returns, without running it.
     *
     * @throws QueryFailureException if the source refuses it
     */
    public Columns describe(Source source, QueryDefinition query) {
        var bound = BoundSql.withoutValues(query);
        try (var connection = pools.open(source, Asker.lane())) {
            connection.limitEachRead(source.timeLimit());
            try (var statement = connection.prepare(bound.sql())) {
                bound.bind(statement);
                return ResultColumns.of(requireRows(statement.getMetaData())).columns();
            }
        } catch (SQLException e) {
            throw QueryFailures.explain(source, new RunningQuery(source.timeLimit()), e);
        }
    }

    /** The server describes a statement without running it; what returns no rows, such as a commit, is not run at all. */
    private static ResultSetMetaData requireRows(@Nullable ResultSetMetaData described) {
        if (described != null) return described;
        throw new QueryFailureException(
                FailureKind.QUERY_INVALID, "The statement returns no columns; a query is a SELECT.");
    }
}
