package dev.oddsentry.cli.findings;

import picocli.CommandLine.Command;

@Command(
        name = "accept",
        mixinStandardHelpOptions = true,
        description = {
            "Accept a finding as correct; needs a note.",
            "It is never reported again, not even when it clears."
        },
        footer = {"", "Example: odd accept certificates \"Terna\" \"Class\" --note \"survey booked\""})
public final class AcceptCommand extends HandlingCommand {
    @Override
    String kind() {
        return "ACCEPT";
    }

    @Override
    String done() {
        return "accepted";
    }
}
