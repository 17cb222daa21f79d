package dev.oddsentry.bench;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.testkit.FreePorts;
import dev.oddsentry.testkit.ThrowAwayPostgres;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** Real service processes on a PostgreSQL of their own, all on loopback, with a ferry database beside the records. */
final class Lab implements AutoCloseable {
    static final String OPERATOR_PASSWORD = "operator-of-the-lab";
    private static final Duration START_WITHIN = Duration.ofSeconds(120);

    private final ThrowAwayPostgres postgres = ThrowAwayPostgres.start();
    private final HttpClient http = HttpClient.newHttpClient();
    private final List<Node> nodes = new ArrayList<>();
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

    /** One service process. */
    final class Node {
        final int port = FreePorts.next();
        private final List<String> settings;
        private Process process;

        private Node(List<String> settings) throws IOException {
            this.settings = settings;
            process = start();
        }

        private Process start() throws IOException {
            var command = Stream.of(
                            Stream.of(Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString()),
                            settings.stream().filter(each -> each.startsWith("-X")),
                            Stream.of(
                                    "-jar",
                                    System.getProperty("odd.service.jar"),
                                    "--server.port=" + port,
                                    "--spring.datasource.url=" + postgres.jdbcUrl("records"),
                                    "--spring.datasource.username=" + ThrowAwayPostgres.USER,
                                    "--oddsentry.key=AAECAwQFBgcICQoLDA0ODxAREhMUFRYXGBkaGxwdHh8=",
                                    "--oddsentry.mail.host=127.0.0.1",
                                    "--oddsentry.mail.from=odd-sentry@skerryline.example",
                                    "--oddsentry.first-operator.password=" + OPERATOR_PASSWORD,
                                    "--logging.level.root=error"),
                            settings.stream().filter(each -> each.startsWith("--")))
                    .flatMap(each -> each)
                    .toList();
            return new ProcessBuilder(command)
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.appendTo(log().toFile()))
                    .start();
        }

        /** SIGKILL, and a new start without waiting for its answer. */
        void killAndStart() throws IOException, InterruptedException {
            kill();
            process = start();
        }

        private void kill() throws InterruptedException {
            process.destroyForcibly();
            process.waitFor(10, TimeUnit.SECONDS);
        }

        long pid() {
            return process.pid();
        }

        HttpApi operator() {
            return HttpApi.loggedIn("http://127.0.0.1:" + port, "operator", OPERATOR_PASSWORD);
        }

        void awaitAnswer() throws IOException, InterruptedException {
            var ask = HttpRequest.newBuilder(URI.create("http://127.0.0.1:" + port + "/login"))
                    .timeout(Duration.ofSeconds(5))
                    .build();
            for (long end = System.nanoTime() + START_WITHIN.toNanos(); System.nanoTime() < end; Thread.sleep(250)) {
                if (!process.isAlive()) break;
                try {
                    if (http.send(ask, HttpResponse.BodyHandlers.discarding()).statusCode() == 200) return;
                } catch (IOException notYet) {
                    // starting
                }
            }
            throw new IllegalStateException("the node at " + port + " does not answer:\n" + Files.readString(log()));
        }

        private Path log() {
            return folder.resolve("node-" + port + ".log");
        }

        /** What it wrote to its log, which is only what went wrong. */
        String logged() throws IOException {
            return Files.readString(log());
        }
    }

    /** @param settings those that start with {@code -X} are the JVM's */
    Node start(String... settings) throws IOException, InterruptedException {
        var node = new Node(List.of(settings));
        nodes.add(node);
        node.awaitAnswer();
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
        nodes.forEach(node -> node.process.destroyForcibly());
    }
}
