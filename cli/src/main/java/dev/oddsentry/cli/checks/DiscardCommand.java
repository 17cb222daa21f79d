package dev.oddsentry.cli.checks;

import picocli.CommandLine.Command;

@Command(
        name = "discard",
        mixinStandardHelpOptions = true,
        description = "Discard a check that awaits approval.",
        footer = {"", "Example: odd discard late-sailings"})
public final class DiscardCommand extends CheckStateCommand {
    @Override
    String move() {
        return "discard";
    }

    @Override
    String from() {
        return "AWAITING_APPROVAL";
    }
}
