package dev.oddsentry.cli.findings;

import picocli.CommandLine.Command;

@Command(
        name = "snooze",
        mixinStandardHelpOptions = true,
        description = {"Silence a finding until a date.", "Any update is reported then."},
        footer = {"", "Example: odd snooze late-sailings 48211 --until 2026-06-01"})
public final class SnoozeCommand extends HandlingCommand {
    @Override
    String kind() {
        return "SNOOZE";
    }

    @Override
    String done() {
        return "snoozed";
    }
}
