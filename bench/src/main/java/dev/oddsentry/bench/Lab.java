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

/** Real service processes with a PostgreSQL for their records and another for the ferry company's data, all on loopback. */
final class Lab implements AutoCloseable {
    private final ThrowAwayPostgres records;
    private final ThrowAwayPostgres source;
    private final List<ServiceProcess> nodes = new ArrayList<>();
    private final Path folder;

    Lab() throws IOException {
        this(Path.of(System.getProperty("java.io.tmpdir")));
    }

    /** @param disk where the records are */
    Lab(Path disk) throws IOException {
        records = ThrowAwayPostgres.start(disk);
        source = ThrowAwayPostgres.start();
        folder = Files.createTempDirectory("odd-lab-");
        // Whatever way this program ends, what it started ends with it.
        Runtime.getRuntime().addShutdownHook(new Thread(this::killNodes, "kill-nodes"));
        execute(records, "postgres", "create database records");
        execute(source, "postgres", "create database ferry");
        execute("ferry", "create role ferry_reader login password 'reader'");
        execute("ferry", "alter default privileges grant select on tables to ferry_reader");
    }

    ThrowAwayPostgres records() {
        return records;
    }

    ThrowAwayPostgres source() {
        return source;
    }

    Path folder() {
        return folder;
    }

    ServiceProcess start(String... settings) throws IOException, InterruptedException {
        return start(Map.of(), settings);
    }

    /** @param settings those that start with {@code -X} or {@code -D} are the JVM's */
    ServiceProcess start(Map<String, String> environment, String... settings) throws IOException, InterruptedException {
        var node = ServiceProcess.start(records.jdbcUrl("records"), folder, environment, settings);
        nodes.add(node);
        return node;
    }

    void saveSource(HttpApi api, int connections, int seconds) {
        api.put(
                "/api/sources/ferry",
                Map.of(
                        "jdbcUrl",
                        source.jdbcUrl("ferry"),
                        "username",
                        "ferry_reader",
                        "password",
                        "reader",
                        "maxRows",
                        5_000_000,
                        "timeLimitSeconds",
                        seconds,
                        "maxConnections",
                        connections));
    }

    void execute(String database, String sql) {
        execute(serverOf(database), database, sql);
    }

    private static void execute(ThrowAwayPostgres server, String database, String sql) {
        try (var connection = connect(server, database);
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
        return connect(serverOf(database), database);
    }

    private static Connection connect(ThrowAwayPostgres server, String database) throws SQLException {
        return DriverManager.getConnection(server.jdbcUrl(database), ThrowAwayPostgres.USER, "");
    }

    private ThrowAwayPostgres serverOf(String database) {
        return database.equals("ferry") ? source : records;
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
                        String.valueOf(source.port()),
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
        records.close();
        source.close();
    }

    private void killNodes() {
        try {
            for (var node : nodes) node.killForGood();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
