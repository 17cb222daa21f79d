package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;

@Command(
        name = "discard",
        mixinStandardHelpOptions = true,
        description = "Discards the latest check of a rule that was kept back; the next one is judged for itself.",
        footer = {"", "Example: odd discard late-sailings"})
public final class DiscardCommand extends CheckMoveCommand {
    @Override
    String move() {
        return "discard";
    }

    @Override
    String from() {
        return "KEPT_BACK";
    }
}
