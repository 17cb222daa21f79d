package dev.oddsentry.service;

import dev.oddsentry.testkit.FreePorts;
import dev.oddsentry.testkit.ThrowAwayPostgres;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** The service as a process of its own, from its jar, which can be killed, ended and started again at the same port. */
public final class ServiceProcess {
    private static final Duration START_WITHIN = Duration.ofSeconds(120);

    private final HttpClient http = HttpClient.newHttpClient();
    private final int port = FreePorts.next();
    private final String records;
    private final Path log;
    private final Map<String, String> environment;
    private final List<String> settings;
    private Process process;
    private boolean over;

    private ServiceProcess(String records, Path folder, Map<String, String> environment, List<String> settings)
            throws IOException {
        this.records = records;
        this.environment = environment;
        this.log = folder.resolve("node-" + port + ".log");
        this.settings = settings;
        this.process = begin();
    }

    /**
     * Starts one and waits until it answers.
     *
     * @param records JDBC address of its database
     * @param folder where its log goes
     * @param settings those that start with {@code -X} or {@code -D} are the JVM's
     */
    public static ServiceProcess start(String records, Path folder, String... settings)
            throws IOException, InterruptedException {
        return start(records, folder, Map.of(), settings);
    }

    /** @param environment variables beside those of this process */
    public static ServiceProcess start(String records, Path folder, Map<String, String> environment, String... settings)
            throws IOException, InterruptedException {
        var started = new ServiceProcess(records, folder, environment, List.of(settings));
        started.awaitAnswer();
        return started;
    }

    private Process begin() throws IOException {
        var command = Stream.of(
                        Stream.of(Path.of(System.getProperty("java.home"), "bin", "java")
                                .toString()),
                        settings.stream().filter(each -> each.startsWith("-X") || each.startsWith("-D")),
                        Stream.of(
                                "-jar",
                                System.getProperty("odd.service.jar"),
                                "--server.port=" + port,
                                "--spring.datasource.url=" + records,
                                "--spring.datasource.username=" + ThrowAwayPostgres.USER,
                                "--oddsentry.key=AAECAwQFBgcICQoLDA0ODxAREhMUFRYXGBkaGxwdHh8=",
                                "--oddsentry.mail.host=127.0.0.1",
                                "--oddsentry.mail.from=odd-sentry@skerryline.example",
                                "--oddsentry.first-operator.password=" + RunningService.OPERATOR_PASSWORD,
                                "--logging.level.root=error"),
                        settings.stream().filter(each -> each.startsWith("--")))
                .flatMap(each -> each)
                .toList();
        var builder = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()));
        builder.environment().putAll(environment);
        return builder.start();
    }

    /** Asked four times a second; a process that has ended will never answer, and its log says why. */
    public void awaitAnswer() throws IOException, InterruptedException {
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
        throw new IllegalStateException("the node at " + port + " does not answer:\n" + logged());
    }

    /** SIGKILL. */
    public void kill() throws InterruptedException {
        process.destroyForcibly();
        process.waitFor(10, TimeUnit.SECONDS);
    }

    /** SIGTERM: it may finish or hand back what it does. @return false: it did not end in that time */
    public boolean end(Duration within) throws InterruptedException {
        process.destroy();
        return process.waitFor(within.toMillis(), TimeUnit.MILLISECONDS);
    }

    /** Starts it again, without waiting for its answer; not after {@link #killForGood}. */
    public synchronized void startAgain() throws IOException {
        if (!over) process = begin();
    }

    /** SIGKILL, where the program that started it ends while others of its threads may still start it again. */
    public synchronized void killForGood() throws InterruptedException {
        over = true;
        kill();
    }

    public boolean isAlive() {
        return process.isAlive();
    }

    public long pid() {
        return process.pid();
    }

    public HttpApi operator() {
        return HttpApi.loggedIn("http://127.0.0.1:" + port, "operator", RunningService.OPERATOR_PASSWORD);
    }

    /** What it wrote to its log, which is only what went wrong. */
    public String logged() throws IOException {
        return Files.readString(log);
    }
}
