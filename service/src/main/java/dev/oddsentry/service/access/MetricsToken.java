package dev.oddsentry.service.access;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * The right to read the metrics and nothing else, for the program that collects them. Under {@code oddsentry.metrics.*}.
 *
 * @param token at least 20 characters; {@code null} if only operators read the metrics
 * @param tokenFile a file that holds it instead
 */
@ConfigurationProperties("oddsentry.metrics")
record MetricsToken(@Nullable String token, @Nullable Path tokenFile) {
    static final String RIGHT = "METRICS";
    private static final int MIN_LENGTH = 20;

    MetricsToken {
        try {
            if (token == null && tokenFile != null)
                token = Files.readString(tokenFile).strip();
        } catch (IOException unreadable) {
            throw new IllegalStateException(
                    "oddsentry.metrics.token-file: " + tokenFile + " cannot be read.", unreadable);
        }
        if (token != null && token.length() < MIN_LENGTH)
            throw new IllegalStateException(
                    "oddsentry.metrics.token must have at least " + MIN_LENGTH + " characters.");
    }

    boolean matches(String given) {
        return token != null
                && MessageDigest.isEqual(
                        token.getBytes(StandardCharsets.UTF_8), given.getBytes(StandardCharsets.UTF_8));
    }

    @Override
    public String toString() {
        return "MetricsToken[" + (token == null ? "none" : "set") + "]";
    }
}
