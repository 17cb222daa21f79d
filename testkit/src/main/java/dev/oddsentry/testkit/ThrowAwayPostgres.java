package dev.oddsentry.testkit;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;

/**
 * A PostgreSQL server on loopback in a temporary folder, from Debian's packages, gone when closed or when the JVM ends. It refuses
 * to run as root, so root starts it as the user {@code postgres}. It listens on no socket file, whose path may be too long.
 */
public final class ThrowAwayPostgres implements AutoCloseable {
    /** The superuser; logs in without a password, from loopback only. */
    public static final String USER = "odd";

    public static final int MOST_CONNECTIONS = 200;

    private final Path folder;
    private final int port;

    private ThrowAwayPostgres(Path folder, int port) {
        this.folder = folder;
        this.port = port;
    }

    public static ThrowAwayPostgres start() {
        return start(Path.of(System.getProperty("java.io.tmpdir")));
    }

    /** @param parent where its folder is made, for a disk of its own */
    public static ThrowAwayPostgres start(Path parent) {
        try {
            Path folder = Files.createTempDirectory(parent, "odd-postgres-");
            if (isRoot()) run(List.of("chown", "postgres", folder.toString()));
            var postgres = new ThrowAwayPostgres(folder, FreePorts.next());
            postgres.initialise();
            Runtime.getRuntime().addShutdownHook(new Thread(postgres::close, "stop-throw-away-postgres"));
            return postgres;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void initialise() {
        asServerUser(
                program("initdb"),
                "-D",
                data(),
                "-U",
                USER,
                "--auth=trust",
                "--encoding=UTF8",
                "--no-locale",
                "--no-sync");
        startAgain();
    }

    /** After {@link #stop}, or when it ended by itself. */
    public void startAgain() {
        String options = "-c port=" + port + " -c listen_addresses=127.0.0.1 -c unix_socket_directories='' -c fsync=off"
                + " -c max_connections=" + MOST_CONNECTIONS
                + " -c timezone=UTC -c max_wal_size=128MB -c min_wal_size=64MB";
        asServerUser(
                program("pg_ctl"),
                "-D",
                data(),
                "-l",
                folder.resolve("server.log").toString(),
                "-w",
                "-o",
                options,
                "start");
    }

    /** At once, as a crash would. */
    public void stop() {
        asServerUser(program("pg_ctl"), "-D", data(), "-m", "immediate", "-w", "stop");
    }

    private String data() {
        return folder.resolve("data").toString();
    }

    public String jdbcUrl(String database) {
        return "jdbc:postgresql://127.0.0.1:" + port + "/" + database;
    }

    public int port() {
        return port;
    }

    public boolean isRunning() {
        return ProcessHandle.allProcesses()
                .anyMatch(each -> each.info().commandLine().orElse("").contains("-D " + data() + " "));
    }

    @Override
    public void close() {
        if (!Files.exists(folder)) return;
        if (isRunning()) stop();
        try (var files = Files.walk(folder)) {
            files.sorted(Comparator.reverseOrder())
                    .forEach(path -> path.toFile().delete());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void asServerUser(String... command) {
        var whole = new ArrayList<String>();
        if (isRoot()) whole.addAll(List.of("runuser", "-u", "postgres", "--"));
        whole.addAll(List.of(command));
        run(whole);
    }

    private static boolean isRoot() {
        return "root".equals(System.getProperty("user.name"));
    }

    private static void run(List<String> command) {
        try {
            // The server outlives this command and would hold a pipe open, so its output goes to a file.
            Path output = Files.createTempFile("odd-postgres-", ".out");
            var process = new ProcessBuilder(command)
                    .directory(Path.of("/").toFile())
                    .redirectErrorStream(true)
                    .redirectOutput(output.toFile())
                    .start();
            boolean ended = process.waitFor(60, TimeUnit.SECONDS);
            String said = Files.readString(output);
            Files.delete(output);
            if (!ended || process.exitValue() != 0) {
                throw new IllegalStateException(String.join(" ", command) + " failed: " + said);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted", e);
        }
    }

    /** The newest installed PostgreSQL's program of that name. */
    private static String program(String name) {
        Path versions = Path.of("/usr/lib/postgresql");
        try (var found = Files.list(versions)) {
            return found.map(version -> version.resolve("bin").resolve(name))
                    .filter(Files::isExecutable)
                    .max(Comparator.comparingInt(program ->
                            Integer.parseInt(program.getName(3).toString().replaceAll("\\D.*", ""))))
                    .orElseThrow(() -> new IllegalStateException("no " + name + " under " + versions))
                    .toString();
        } catch (IOException e) {
            throw new IllegalStateException(
                    "PostgreSQL is not installed: expected Debian's package postgresql under " + versions, e);
        }
    }
}
