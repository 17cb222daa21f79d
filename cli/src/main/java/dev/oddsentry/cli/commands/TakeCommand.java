package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;

@Command(
        name = "take",
        mixinStandardHelpOptions = true,
        description = "Takes a finding: you see to it, so nobody is reminded. Ends when it clears or gets worse.",
        footer = {"", "Example: odd take late-sailings 48211 --note \"rang the terminal\" --until 2026-06-01"})
public final class TakeCommand extends MarkCommand {
    @Override
    String kind() {
        return "TAKE";
    }

    @Override
    String done() {
        return "taken";
    }
}
