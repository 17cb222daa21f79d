package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.FeedAddress;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "feed",
        mixinStandardHelpOptions = true,
        description = {
            "Create or revoke a calendar feed of all schedules.",
            "Anyone with the address can read the feed. A new address replaces the old one."
        },
        footer = {"", "Example: odd feed"})
public final class FeedCommand extends ServiceCommand {
    @Option(names = "--revoke", description = "Revoke the address.")
    boolean revoke;

    @Override
    public Integer call() {
        if (revoke) {
            api().delete("/api/feed");
            out().println("The address is revoked.");
        } else out().println(api().post("/api/feed", null, FeedAddress.class).address());
        return 0;
    }
}
