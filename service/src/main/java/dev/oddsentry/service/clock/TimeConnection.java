package dev.oddsentry.service.clock;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.util.Properties;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.jdbc.autoconfigure.JdbcConnectionDetails;

/** A connection of its own for asking the time, so that it is never kept waiting by work that asks for it. */
final class TimeConnection implements DatabaseClock.Source, AutoCloseable {
    private static final String LIMIT_SECONDS = "5";

    private final String url;
    private final Properties properties = new Properties();
    private @Nullable Connection open;

    TimeConnection(JdbcConnectionDetails records) {
        this.url = records.getJdbcUrl();
        set("user", records.getUsername());
        set("password", records.getPassword());
        set("connectTimeout", LIMIT_SECONDS);
        set("loginTimeout", LIMIT_SECONDS);
        set("socketTimeout", LIMIT_SECONDS);
        set("ApplicationName", "Odd Sentry, time");
    }

    private void set(String name, @Nullable String value) {
        if (value != null) properties.setProperty(name, value);
    }

    @Override
    public synchronized Instant now() throws SQLException {
        try {
            return ask();
        } catch (SQLException broken) {
            close();
            return ask();
        }
    }

    private Instant ask() throws SQLException {
        if (open == null) open = DriverManager.getConnection(url, properties);
        try (var statement = open.createStatement();
                var row = statement.executeQuery("select clock_timestamp()")) {
            row.next();
            return row.getObject(1, OffsetDateTime.class).toInstant();
        }
    }

    @Override
    public synchronized void close() {
        if (open == null) return;
        try {
            open.close();
        } catch (SQLException gone) {
            // It was of no more use.
        }
        open = null;
    }
}
