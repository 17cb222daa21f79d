package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.SourcePools;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Runs a query in one read-only transaction on its source and streams the rows to the end. Over the source's time limit it is
 * cancelled there; over its row cap it fails. Either way the caller learns that it did not see everything.
 */
@Component
public class QueryRunner {
    private static final int FETCH_SIZE = 1_000;
    /** Rows, a power of two less one. */
    private static final int TELL_EVERY = 0xff;

    private final SourcePools pools;
    private final Clock clock;

    QueryRunner(SourcePools pools, Clock clock) {
        this.pools = pools;
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
     * @param values parameter values by name
     * @param sinkFor given the columns, before any row, the taker of the rows
     * @throws QueryFailureException if it could not be run to its end
     */
    public Reading read(
            Source source, QueryDefinition query, Map<String, Object> values, Function<Columns, RowSink> sinkFor) {
        return read(source, query, values, sinkFor, new RunningQuery(source.timeLimit()));
    }

    /**
     * The same, so that others can follow it and cancel it.
     *
     * @param running told of the rows that were read
     */
    public Reading read(
            Source source,
            QueryDefinition query,
            Map<String, Object> values,
            Function<Columns, RowSink> sinkFor,
            RunningQuery running) {
        var bound = BoundSql.of(query, values);
        Instant readAt = clock.instant();
        try (var connection = pools.open(source)) {
            try (var statement = prepare(connection, bound, running.limit())) {
                running.began(statement);
                return stream(statement, source, readAt, sinkFor, running);
            } finally {
                running.ended();
                connection.rollback();
            }
        } catch (SQLException e) {
            throw QueryFailures.explain(source, running, e);
        }
    }

    private static PreparedStatement prepare(Connection connection, BoundSql bound, Duration limit)
            throws SQLException {
        var statement = connection.prepareStatement(bound.sql());
        statement.setFetchSize(FETCH_SIZE);
        statement.setQueryTimeout(Math.toIntExact(Math.max(1, limit.toSeconds())));
        bound.bind(statement);
        return statement;
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
            long count = 0;
            while (rows.next()) {
                if (++count > source.mostRows()) {
                    throw new QueryFailureException(
                            "The result has more than " + source.mostRows()
                                    + " rows, the most that the source " + source.name()
                                    + " allows. Nothing was judged, since a part is not the whole; narrow the query or raise the cap.");
                }
                sink.accept(result.read(rows));
                if ((count & TELL_EVERY) == 0) running.read(count);
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
        try (var connection = pools.open(source)) {
            try (var statement = connection.prepareStatement(BoundSql.withoutValues(query))) {
                var meta = statement.getMetaData();
                if (meta == null)
                    throw new QueryFailureException("The statement returns no columns; a query is a select.");
                return ResultColumns.of(meta).columns();
            } finally {
                connection.rollback();
            }
        } catch (SQLException e) {
            throw QueryFailures.explain(source, new RunningQuery(source.timeLimit()), e);
        }
    }
}
