package dev.oddsentry.cli.start;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.ConsoleSession;
import dev.oddsentry.contract.EndedSessions;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "sessions",
        mixinStandardHelpOptions = true,
        description = "List where you are logged in to the console, or end that.",
        footer = {"", "Example: odd sessions --end-all"})
public final class SessionsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(names = "--end-all", description = "End all of them.")
    boolean endAll;

    @Override
    public Integer call() {
        if (endAll) {
            var ended = api().delete("/api/sessions", EndedSessions.class);
            out().println("Ended " + Words.count(ended.sessions(), "session") + ".");
            return 0;
        }
        List<ConsoleSession> all = api().list("/api/sessions", ConsoleSession.class);
        output.print(out(), all, () -> table(all), "You are not logged in to the console.");
        return 0;
    }

    private static Listing table(List<ConsoleSession> all) {
        var table = new Listing("Began", "Last used", "Ends unless used");
        for (var each : all)
            table.add(Words.time(each.beganAt()), Words.time(each.usedAt()), Words.time(each.endsAt()));
        return table;
    }
}
