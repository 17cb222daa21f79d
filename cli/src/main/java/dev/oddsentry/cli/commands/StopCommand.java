package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;

@Command(
        name = "stop",
        mixinStandardHelpOptions = true,
        description =
                "Stops the running check of a rule; its query is cancelled in the source, and nothing is remembered.",
        footer = {"", "Example: odd stop late-sailings"})
public final class StopCommand extends CheckMoveCommand {
    @Override
    String move() {
        return "stop";
    }

    @Override
    String from() {
        return "RUNNING";
    }
}
