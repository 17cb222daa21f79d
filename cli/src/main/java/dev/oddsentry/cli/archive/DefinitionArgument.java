package dev.oddsentry.cli.archive;

import dev.oddsentry.cli.client.Api;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** The definition that a command is about, {@code rule/late-sailings}. */
final class DefinitionArgument {
    @Spec(Spec.Target.MIXEE)
    @SuppressWarnings("NullAway.Init")
    private CommandSpec command;

    @Parameters(
            index = "0",
            paramLabel = "KIND/NAME",
            description =
                    "The definition: rule, query, threshold, calendar, layout, recipient-list or round-up, then its name.")
    @SuppressWarnings("NullAway.Init")
    private String written;

    String written() {
        return written;
    }

    /** Its path in the API with {@code under} behind it. */
    String path(String under) {
        String[] parts = written.split("/", 2);
        if (parts.length < 2 || parts[1].isEmpty())
            throw new ParameterException(
                    command.commandLine(), "\"" + written + "\" has no kind; write it as rule/" + written + ".");
        return "/api/definitions/" + Api.part(parts[0]) + "/" + Api.part(parts[1]) + under;
    }
}
