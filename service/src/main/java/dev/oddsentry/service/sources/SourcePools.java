package dev.oddsentry.service.sources;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import jakarta.annotation.PreDestroy;
import java.sql.Connection;
import java.sql.SQLException;
import java.time.Instant;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** One connection pool for each source, made at its first use and made anew when the source's settings change. */
@Component
public class SourcePools {
    private static final long WAIT_FOR_CONNECTION_MILLIS = 10_000;

    private final Sources sources;
    private final ConcurrentHashMap<UUID, Pool> pools = new ConcurrentHashMap<>();

    SourcePools(Sources sources) {
        this.sources = sources;
    }

    private record Pool(Instant madeFor, HikariDataSource connections) {}

    /** A connection in a read-only transaction of its own; closing it gives it back. */
    public Connection open(Source source) throws SQLException {
        var connection = pools.compute(source.id(), (_, pool) -> current(source, pool))
                .connections
                .getConnection();
        connection.setAutoCommit(false);
        connection.setReadOnly(true);
        return connection;
    }

    private Pool current(Source source, @Nullable Pool pool) {
        if (pool != null && pool.madeFor.equals(source.updatedAt())) return pool;
        if (pool != null) pool.connections.close();
        return new Pool(source.updatedAt(), new HikariDataSource(configuration(source)));
    }

    private HikariConfig configuration(Source source) {
        var config = new HikariConfig();
        config.setPoolName("source-" + source.name());
        config.setJdbcUrl(source.jdbcUrl());
        config.setUsername(source.username());
        config.setPassword(sources.passwordOf(source));
        config.setMaximumPoolSize(source.mostConnections());
        config.setMinimumIdle(0);
        config.setAutoCommit(false);
        config.setReadOnly(true);
        config.setConnectionTimeout(WAIT_FOR_CONNECTION_MILLIS);
        // A source that is down must not stop the service: the first use says so.
        config.setInitializationFailTimeout(-1);
        return config;
    }

    @PreDestroy
    void close() {
        pools.values().forEach(pool -> pool.connections.close());
    }
}
