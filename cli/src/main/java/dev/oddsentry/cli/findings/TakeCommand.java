package dev.oddsentry.cli.findings;

import picocli.CommandLine.Command;

@Command(
        name = "take",
        mixinStandardHelpOptions = true,
        description = {
            "Take a finding: you deal with it, reminders stop.",
            "It ends when the finding clears or worsens."
        },
        footer = {"", "Example: odd take late-sailings 48211 --note \"rang the terminal\" --until 2026-06-01"})
public final class TakeCommand extends HandlingCommand {
    @Override
    String kind() {
        return "TAKE";
    }

    @Override
    String done() {
        return "taken";
    }
}
