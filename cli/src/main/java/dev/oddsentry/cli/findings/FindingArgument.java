package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.RuleArgument;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

/** The finding that a command is about: its rule and the values of its key. */
final class FindingArgument {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    private RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    private CopyOption copy;

    @Parameters(
            index = "1..*",
            arity = "1..*",
            paramLabel = "KEY",
            description = "Values of the key columns, in their order; \"missing\" if one has none.")
    @SuppressWarnings("NullAway.Init")
    private List<String> key;

    /** Below the rule. */
    String path(String rest) {
        return rule.path(rest);
    }

    /** The beginning of a request's body. */
    Map<String, @Nullable Object> body() {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("key", key);
        body.put("copy", copy.key());
        return body;
    }

    String words() {
        return String.join(", ", key);
    }
}
