package dev.oddsentry.cli.checks;

import picocli.CommandLine.Command;

@Command(
        name = "approve",
        mixinStandardHelpOptions = true,
        description = "Approve a check; it runs again and reports.",
        footer = {"", "Example: odd approve late-sailings"})
public final class ApproveCommand extends CheckStateCommand {
    @Override
    String move() {
        return "approve";
    }

    @Override
    String from() {
        return "AWAITING_APPROVAL";
    }
}
