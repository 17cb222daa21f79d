package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "feed",
        mixinStandardHelpOptions = true,
        description = {
            "Gives the address under which a calendar program can subscribe to the schedules of all active rules.",
            "Whoever has the address can read them, so a new one replaces the old, and --stop ends it."
        },
        footer = {"", "Example: odd feed"})
public final class FeedCommand extends ServiceCommand {
    @Option(names = "--stop", description = "The address that was given out answers no more.")
    boolean stop;

    @Override
    public Integer call() {
        if (stop) {
            api().delete("/api/feed");
            out().println("The address answers no more.");
        } else out().println(api().post("/api/feed", null).path("address").asString(""));
        return 0;
    }
}
