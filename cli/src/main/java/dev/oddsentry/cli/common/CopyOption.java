package dev.oddsentry.cli.common;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** The personal copy that a command is about. */
public final class CopyOption {
    @Option(
            names = "--copy",
            paramLabel = "KEY",
            description = "Personal copy, by the value of its key, such as Varsund.")
    private @Nullable String copy;

    /** Null for the rule as a whole. */
    public @Nullable String key() {
        return copy;
    }

    /** The values of a query string with {@code copy} added; null for the rule as a whole. */
    public Map<String, @Nullable String> with(Map<String, @Nullable String> others) {
        var all = new LinkedHashMap<String, @Nullable String>(others);
        all.put("copy", copy);
        return all;
    }
}
