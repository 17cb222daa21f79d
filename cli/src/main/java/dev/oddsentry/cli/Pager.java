package dev.oddsentry.cli;

import java.io.IOException;
import java.io.OutputStreamWriter;
import java.io.PrintWriter;
import java.io.Writer;
import java.nio.charset.Charset;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Long answers go through the pager that the environment names, {@code less} by default, if they are read on a terminal. It ends by itself
 * if everything fits on the screen.
 */
final class Pager implements AutoCloseable {
    /** Commands that list; others talk while they work, or ask. */
    private static final Set<String> LISTING = Set.of(
            "all-findings",
            "findings-over-time",
            "calendars",
            "checks",
            "dates",
            "diff",
            "explain",
            "findings",
            "help",
            "measurements",
            "message",
            "outbox",
            "people",
            "person",
            "archive",
            "audit",
            "preview",
            "providers",
            "queries",
            "recipients",
            "revisions",
            "round-ups",
            "rules",
            "run-query",
            "sources",
            "statement",
            "week",
            "team",
            "teams",
            "thresholds");

    private final Process process;
    private final PrintWriter out;

    private Pager(Process process, Charset charset) {
        this.process = process;
        this.out = new PrintWriter(new OutputStreamWriter(process.getOutputStream(), charset));
    }

    /**
     * The command of the shell that pages.
     *
     * @param terminal whether somebody reads the output on a terminal
     * @return empty if nothing is to be paged
     */
    static Optional<String> command(boolean terminal, Map<String, String> environment, String... arguments) {
        if (!terminal || arguments.length == 0 || !LISTING.contains(arguments[0])) return Optional.empty();
        String own = environment.getOrDefault("ODD_PAGER", environment.getOrDefault("PAGER", "less -FRSX"));
        return own.isBlank() || own.equals("cat") ? Optional.empty() : Optional.of(own);
    }

    /** @return empty if the pager cannot be started */
    static Optional<Pager> start(String command, Charset charset) {
        try {
            var process = new ProcessBuilder("sh", "-c", command)
                    .redirectOutput(ProcessBuilder.Redirect.INHERIT)
                    .redirectError(ProcessBuilder.Redirect.INHERIT)
                    .start();
            return Optional.of(new Pager(process, charset));
        } catch (IOException none) {
            return Optional.empty();
        }
    }

    Writer out() {
        return out;
    }

    /** Waits until the reader has left it. */
    @Override
    public void close() {
        out.close();
        try {
            process.waitFor();
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }
}
