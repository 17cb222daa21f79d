package dev.oddsentry.cli.commands;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;

/** Which personal copy of a rule is meant. */
final class CopyOption {
    @Option(
            names = "--copy",
            paramLabel = "KEY",
            description = "Which personal copy, of a rule that has such: the value of its key, such as Varsund.")
    @Nullable
    String copy;

    /** For a query string; null where none is meant. */
    Map<String, @Nullable String> with(Map<String, @Nullable String> others) {
        var all = new LinkedHashMap<String, @Nullable String>(others);
        all.put("copy", copy);
        return all;
    }
}
