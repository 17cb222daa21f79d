package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;

@Command(
        name = "snooze",
        mixinStandardHelpOptions = true,
        description = "Says nothing of a finding until a date; what differs then is told.",
        footer = {"", "Example: odd snooze late-sailings 48211 --until 2026-06-01"})
public final class SnoozeCommand extends MarkCommand {
    @Override
    String kind() {
        return "SNOOZE";
    }

    @Override
    String done() {
        return "snoozed";
    }
}
