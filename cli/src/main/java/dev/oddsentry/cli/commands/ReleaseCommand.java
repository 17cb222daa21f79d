package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;

@Command(
        name = "release",
        mixinStandardHelpOptions = true,
        description =
                "Lets the latest check of a rule through that was kept back: it is run again for its slot, and reported.",
        footer = {"", "Example: odd release late-sailings"})
public final class ReleaseCommand extends CheckMoveCommand {
    @Override
    String move() {
        return "release";
    }

    @Override
    String from() {
        return "KEPT_BACK";
    }
}
