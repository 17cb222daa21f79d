package dev.oddsentry.cli.checks;

import picocli.CommandLine.Command;

@Command(
        name = "stop",
        mixinStandardHelpOptions = true,
        description = "Stop a running check and cancel its query.",
        footer = {"", "Example: odd stop late-sailings"})
public final class StopCommand extends CheckStateCommand {
    @Override
    String move() {
        return "stop";
    }

    @Override
    String from() {
        return "RUNNING";
    }
}
