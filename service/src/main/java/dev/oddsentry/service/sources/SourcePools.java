package dev.oddsentry.service.sources;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import dev.oddsentry.service.config.ServerRest;
import jakarta.annotation.PreDestroy;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/**
 * The connections to each source: one pool for checks and a small one for what people run by hand, made at their first use and replaced when the source's
 * settings change.
 */
@Component
public class SourcePools {
    private static final Duration WAIT_FOR_CONNECTION = Duration.ofSeconds(10);
    private static final long LOOK_EVERY_MILLIS = 200;
    private static final Duration FIRST_REST = Duration.ofSeconds(1);
    private static final Duration LONGEST_REST = Duration.ofMinutes(1);
    /** What each session begins with. Of rows the driver holds 40 MB at most; over that the query fails instead of the service. */
    private static final Map<String, String> SESSION = Map.of(
            "readOnlyMode",
            "always",
            "preferQueryMode",
            "extended",
            "maxResultBuffer",
            "40M",
            "cancelSignalTimeout",
            "5",
            // A host that does not answer, and one that falls silent while it is logged in to.
            "connectTimeout",
            "10",
            "loginTimeout",
            "10",
            "socketTimeout",
            "30",
            "tcpKeepAlive",
            "true");

    private final Sources sources;
    private final OwnRecords ownRecords;
    private final Duration wait;
    private final ConcurrentHashMap<Key, Pool> pools = new ConcurrentHashMap<>();
    private final ConcurrentHashMap<UUID, Rest> rests = new ConcurrentHashMap<>();

    @Autowired
    SourcePools(Sources sources, OwnRecords ownRecords) {
        this(sources, ownRecords, WAIT_FOR_CONNECTION);
    }

    /** @param wait for a connection that is free, or for a source that does not let one in */
    SourcePools(Sources sources, OwnRecords ownRecords, Duration wait) {
        this.wait = wait;
        this.sources = sources;
        this.ownRecords = ownRecords;
    }

    private record Key(UUID source, Lane lane) {}

    /** @param madeFor another address or password is another try */
    private record Rest(Instant madeFor, ServerRest rest) {}

    /** @param foreign set once a connection has shown that it does not lead to the service's own records */
    private record Pool(Instant madeFor, HikariDataSource connections, AtomicBoolean foreign) {}

    /**
     * Opens a connection in a read-only transaction of its own.
     *
     * @throws NoConnectionFreeException if all of the lane are in use for ten seconds
     * @throws SQLException if the source cannot be reached
     */
    public SourceConnection open(Source source, Lane lane) throws SQLException {
        var pool = pools.compute(new Key(source.id(), lane), (_, existing) -> current(source, lane, existing));
        var connection = connect(pool.connections, source, lane);
        try {
            connection.setAutoCommit(false);
            connection.setReadOnly(true);
            if (!pool.foreign.get()) {
                ownRecords.refuse(connection);
                pool.foreign.set(true);
            }
            return new SourceConnection(pool.connections, connection);
        } catch (SQLException broken) {
            pool.connections.evictConnection(connection);
            connection.close();
            throw broken;
        }
    }

    /** For how long checks that nobody waits for should leave the source alone, since connecting to it failed; zero if they need not. */
    public Duration restsFor(Source source) {
        return restOf(source).closedFor();
    }

    private ServerRest restOf(Source source) {
        return rests.compute(
                        source.id(),
                        (_, known) -> known != null && known.madeFor.equals(source.updatedAt())
                                ? known
                                : new Rest(
                                        source.updatedAt(),
                                        new ServerRest(FIRST_REST, LONGEST_REST, Integer.MAX_VALUE, System::nanoTime)))
                .rest();
    }

    private Connection connect(HikariDataSource connections, Source source, Lane lane) throws SQLException {
        var rest = restOf(source);
        boolean answered = true;
        rest.beginAnyway();
        try {
            return take(connections, source, lane);
        } catch (NoConnectionFreeException busy) {
            throw busy;
        } catch (SQLException unreachable) {
            answered = false;
            throw unreachable;
        } finally {
            rest.ended(answered);
        }
    }

    private static Connection take(HikariDataSource connections, Source source, Lane lane) throws SQLException {
        try {
            return connections.getConnection();
        } catch (SQLTransientConnectionException timedOut) {
            // The pool gives the server's refusal as the cause, where there was one.
            if (timedOut.getCause() == null) throw new NoConnectionFreeException(source, lane);
            throw timedOut;
        }
    }

    private Pool current(Source source, Lane lane, @Nullable Pool pool) {
        if (pool != null && pool.madeFor.equals(source.updatedAt())) return pool;
        if (pool != null)
            Thread.ofVirtual().name("retire-" + pool.connections.getPoolName()).start(() -> retire(pool.connections));
        return new Pool(source.updatedAt(), new HikariDataSource(configuration(source, lane)), new AtomicBoolean());
    }

    /**
     * Set by the client at log-in: {@code discard all} returns to them, and they count more than settings of the role or the database. A statement that
     * is merely described waits for locks too, and nobody could cancel it.
     */
    private static String options(Source source) {
        return "-c default_transaction_read_only=on -c standard_conforming_strings=on -c lock_timeout="
                + source.timeLimit().toMillis();
    }

    /** Queries that run go on with the settings that they began with; closing the pool would cut them off. */
    private static void retire(HikariDataSource connections) {
        try {
            while (connections.getHikariPoolMXBean().getActiveConnections() > 0) Thread.sleep(LOOK_EVERY_MILLIS);
        } catch (InterruptedException stopping) {
            Thread.currentThread().interrupt();
        }
        connections.close();
    }

    private HikariConfig configuration(Source source, Lane lane) {
        // Stored before the parameters were limited, it may hold one that lifts the limits.
        SourceAddress.parse(source.jdbcUrl());
        var config = new HikariConfig();
        config.setPoolName("source-" + source.name() + (lane == Lane.BY_HAND ? "-by-hand" : ""));
        config.setJdbcUrl(source.jdbcUrl());
        config.setUsername(source.username());
        config.setPassword(sources.passwordOf(source));
        SESSION.forEach(config::addDataSourceProperty);
        config.addDataSourceProperty("options", options(source));
        config.setMaximumPoolSize(source.connectionsFor(lane));
        config.setMinimumIdle(0);
        config.setAutoCommit(false);
        config.setReadOnly(true);
        config.setConnectionTimeout(wait.toMillis());
        // A source that is down must not stop the service: the first use says so.
        config.setInitializationFailTimeout(-1);
        return config;
    }

    @PreDestroy
    void close() {
        pools.values().forEach(pool -> pool.connections.close());
    }
}
