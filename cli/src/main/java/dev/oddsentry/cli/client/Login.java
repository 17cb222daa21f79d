package dev.oddsentry.cli.client;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.json.JsonMapper;

/**
 * Which service, and the token it gave. From the environment ({@code ODD_URL}, {@code ODD_TOKEN}), else from a file that only its
 * owner can read.
 */
public record Login(String url, @Nullable String token) {
    private static final JsonMapper JSON = new JsonMapper();
    /** Set by the script {@code odd} where a demo runs beside it. */
    private static final String DEFAULT_URL = "ODD_DEFAULT_URL";

    /** @param urlGiven on the command line; it comes before everything else */
    public static Login current(@Nullable String urlGiven) {
        var stored = stored();
        String url = firstOf(
                urlGiven,
                System.getenv("ODD_URL"),
                stored.map(Login::url).orElse(null),
                System.getenv(DEFAULT_URL),
                "http://127.0.0.1:8480");
        String token = System.getenv("ODD_TOKEN");
        if (token == null)
            token = stored.filter(login -> login.url.equals(url))
                    .map(Login::token)
                    .orElse(null);
        return new Login(url, token);
    }

    /** The service to log in at: the demo beside the command comes before an old log-in elsewhere. */
    public static String urlToLogInAt(@Nullable String urlGiven) {
        return firstOf(
                urlGiven,
                System.getenv("ODD_URL"),
                System.getenv(DEFAULT_URL),
                stored().map(Login::url).orElse(null),
                "http://127.0.0.1:8480");
    }

    private static String firstOf(@Nullable String... candidates) {
        for (String candidate : candidates)
            if (candidate != null && !candidate.isBlank()) return candidate.replaceAll("/+$", "");
        throw new IllegalStateException("no service address");
    }

    private static Optional<Login> stored() {
        if (!Files.exists(file())) return Optional.empty();
        try {
            var tree = JSON.readTree(Files.readAllBytes(file()));
            return Optional.of(
                    new Login(tree.path("url").asString(""), tree.path("token").asString("")));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Keeps this log-in in place of the one before. */
    public void store() {
        try {
            Files.createDirectories(file().getParent());
            Path draft = Files.createTempFile(file().getParent(), "login", ".new");
            Files.setPosixFilePermissions(draft, PosixFilePermissions.fromString("rw-------"));
            Files.write(draft, JSON.writeValueAsBytes(this));
            Files.move(draft, file(), StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public static void forget() {
        try {
            Files.deleteIfExists(file());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Path file() {
        String configHome = System.getenv("XDG_CONFIG_HOME");
        Path base = configHome == null || configHome.isBlank()
                ? Path.of(System.getProperty("user.home"), ".config")
                : Path.of(configHome);
        return base.resolve("odd-sentry").resolve("login.json");
    }
}
