package dev.oddsentry.bench;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.ServiceProcess;
import dev.oddsentry.testkit.ThrowAwayPostgres;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Real service processes on a PostgreSQL of their own, all on loopback, with a ferry database beside the records. */
final class Lab implements AutoCloseable {
    private final ThrowAwayPostgres postgres = ThrowAwayPostgres.start();
    private final List<ServiceProcess> nodes = new ArrayList<>();
    private final Path folder;

    Lab() throws IOException {
        folder = Files.createTempDirectory("odd-lab-");
        // Whatever way this program ends, what it started ends with it.
        Runtime.getRuntime().addShutdownHook(new Thread(this::killNodes, "kill-nodes"));
        execute("postgres", "create database records");
        execute("postgres", "create database ferry");
        execute("postgres", "create role ferry_reader login password 'reader'");
        execute("ferry", "alter default privileges grant select on tables to ferry_reader");
    }

    ThrowAwayPostgres postgres() {
        return postgres;
    }

    /** @param settings those that start with {@code -X} are the JVM's */
    ServiceProcess start(String... settings) throws IOException, InterruptedException {
        var node = ServiceProcess.start(postgres.jdbcUrl("records"), folder, settings);
        nodes.add(node);
        return node;
    }

    void saveSource(HttpApi api, int connections, int seconds) {
        api.put(
                "/api/sources/ferry",
                Map.of(
                        "jdbcUrl",
                        postgres.jdbcUrl("ferry"),
                        "username",
                        "ferry_reader",
                        "password",
                        "reader",
                        "mostRows",
                        5_000_000,
                        "timeLimitSeconds",
                        seconds,
                        "mostConnections",
                        connections));
    }

    void execute(String database, String sql) {
        try (var connection = connect(database);
                var statement = connection.createStatement()) {
            statement.execute(sql);
        } catch (SQLException e) {
            throw new IllegalStateException(sql, e);
        }
    }

    long count(String sql) {
        try (var connection = connect("records");
                var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getLong(1);
        } catch (SQLException e) {
            throw new IllegalStateException(sql, e);
        }
    }

    Connection connect(String database) throws SQLException {
        return DriverManager.getConnection(postgres.jdbcUrl(database), ThrowAwayPostgres.USER, "");
    }

    /** Seconds of {@code psql \copy} of the query as text to nowhere: the limit that a reading is held against. */
    double psqlCopy(String sql) throws IOException, InterruptedException {
        long began = System.nanoTime();
        var process = new ProcessBuilder(
                        "psql",
                        "-q",
                        "-h",
                        "127.0.0.1",
                        "-p",
                        String.valueOf(postgres.port()),
                        "-U",
                        ThrowAwayPostgres.USER,
                        "-d",
                        "ferry",
                        "-c",
                        "\\copy (" + sql + ") to /dev/null")
                .inheritIO()
                .start();
        if (process.waitFor() != 0) throw new IllegalStateException("psql failed");
        return (System.nanoTime() - began) / 1e9;
    }

    @Override
    public void close() {
        killNodes();
        postgres.close();
    }

    private void killNodes() {
        try {
            for (var node : nodes) node.kill();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
