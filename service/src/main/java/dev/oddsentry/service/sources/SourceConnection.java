package dev.oddsentry.service.sources;

import com.zaxxer.hikari.HikariDataSource;
import java.sql.Connection;
import java.sql.DatabaseMetaData;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.ZoneId;
import java.time.ZoneOffset;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * A connection to a source for one query, in a read-only transaction. Closing it rolls back and gives the connection to the next query only after the server has
 * dropped all state of its session. After anything doubtful the connection is closed for good.
 */
public final class SourceConnection implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(SourceConnection.class);

    private final HikariDataSource pool;
    private final Connection connection;
    private boolean doubtful;

    SourceConnection(HikariDataSource pool, Connection connection) {
        this.pool = pool;
        this.connection = connection;
    }

    /** What a line that has gone dead in silence costs at most beyond the time that the query may take. */
    private static final Duration ROOM = Duration.ofSeconds(15);

    /** Waits no longer than that for each answer of the source, which says nothing while it works. */
    public void limitEachRead(Duration limit) throws SQLException {
        // Past the pool, which would set it back on a connection that is closed for good.
        connection
                .unwrap(Connection.class)
                .setNetworkTimeout(
                        Runnable::run, Math.toIntExact(limit.plus(ROOM).toMillis()));
    }

    /**
     * The zone that the source's own tools would show times in: what is set for the role or the database, else the server's. The session's is the driver's
     * doing, and so says nothing.
     */
    ZoneId ownZone() throws SQLException {
        try (var statement = connection.prepareStatement("""
                        select coalesce(
                          (select substr(setting, strpos(setting, '=') + 1)
                             from pg_db_role_setting, unnest(setconfig) setting
                            where lower(setting) like 'timezone=%'
                              and setrole in (0, (select oid from pg_roles where rolname = current_user))
                              and setdatabase in (0, (select oid from pg_database where datname = current_database()))
                            order by setrole = 0, setdatabase = 0
                            limit 1),
                          current_setting('log_timezone'))""");
                var rows = statement.executeQuery()) {
            rows.next();
            return ZoneId.of(rows.getString(1));
        } catch (DateTimeException unknownHere) {
            return ZoneOffset.UTC;
        }
    }

    /** In which the source reads and writes local times, for as long as this query runs. */
    public void useZone(ZoneId zone) throws SQLException {
        String name = SessionZone.name(zone);
        try (var statement = connection.prepareStatement("select set_config('TimeZone', ?, true)")) {
            statement.setString(1, name);
            statement.execute();
        }
    }

    /**
     * Prepares one statement that returns rows. The driver splits a text at semicolons and would send each part for itself, so its own reading is
     * asked first; the server then refuses what the driver takes for one statement and the server does not.
     *
     * @throws SQLException if the text is more than one statement, or one that returns no rows
     */
    public PreparedStatement prepare(String sql) throws SQLException {
        if (!SingleStatement.isOne(sql))
            throw new NotOneQueryException("The text holds more than one statement; a query is one.");
        if (!SingleStatement.leavesNothingBehind(sql)) doubtful = true;
        return connection.prepareStatement(sql);
    }

    /** Says that something happened to the connection that must not reach another query, such as a cancelled one. */
    public void distrust() {
        doubtful = true;
    }

    DatabaseMetaData metaData() throws SQLException {
        return connection.getMetaData();
    }

    String catalog() throws SQLException {
        return connection.getCatalog();
    }

    public boolean isValid(int seconds) throws SQLException {
        return connection.isValid(seconds);
    }

    @Override
    public void close() {
        try (connection) {
            if (doubtful || !reset()) pool.evictConnection(connection);
        } catch (SQLException gone) {
            LOG.debug("A source's connection was gone when it was closed", gone);
        }
    }

    /** @return {@code false} if the session may not be used again */
    private boolean reset() {
        try {
            connection.rollback();
            connection.setAutoCommit(true);
            try (var statement = connection.createStatement()) {
                statement.execute("discard all");
            }
            return true;
        } catch (SQLException failed) {
            LOG.debug("A source's connection could not be reset and is closed", failed);
            return false;
        }
    }
}
