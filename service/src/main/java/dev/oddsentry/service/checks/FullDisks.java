package dev.oddsentry.service.checks;

import java.io.IOException;
import java.sql.SQLException;
import org.jspecify.annotations.Nullable;

/** Knows a full disk among the causes of a failure. */
final class FullDisks {
    private static final String DISK_FULL = "53100";

    private FullDisks() {}

    /** @return words for the owner; null where no disk is full */
    static @Nullable String words(Throwable failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause()) {
            if (cause instanceof SQLException sql && DISK_FULL.equals(sql.getSQLState()))
                return "The disk of the service's own database is full; the operator must make room.";
            if (cause instanceof IOException io && isFull(io))
                return "The folder for temporary files (" + System.getProperty("java.io.tmpdir")
                        + ") has no room left; the operator must make room.";
        }
        return null;
    }

    private static boolean isFull(IOException io) {
        String message = String.valueOf(io.getMessage());
        return message.contains("No space left on device") || message.contains("Disk quota exceeded");
    }
}
