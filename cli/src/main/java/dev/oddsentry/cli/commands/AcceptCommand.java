package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;

@Command(
        name = "accept",
        mixinStandardHelpOptions = true,
        description = "Accepts a finding as it is: nothing is said of it, not even that it clears. Needs a note.",
        footer = {"", "Example: odd accept certificates \"Terna\" \"Class\" --note \"survey booked\""})
public final class AcceptCommand extends MarkCommand {
    @Override
    String kind() {
        return "ACCEPT";
    }

    @Override
    String done() {
        return "accepted";
    }
}
