package dev.oddsentry.cli.common;

import dev.oddsentry.cli.client.Api;
import picocli.CommandLine.Parameters;

/** The rule that a command is about. */
public final class RuleArgument {
    @Parameters(index = "0", paramLabel = "RULE", description = "Name of the rule.")
    @SuppressWarnings("NullAway.Init")
    private String name;

    public String name() {
        return name;
    }

    /** The rule's path in the API with {@code under} behind it, such as {@code /checks}. */
    public String path(String under) {
        return "/api/rules/" + Api.part(name) + under;
    }
}
