package dev.oddsentry.cli.data;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.QueryRunView;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "query-runs",
        mixinStandardHelpOptions = true,
        description = {
            "List queries that people are running, or stop one.",
            "You see your own; operators see all. Checks are listed by odd checks."
        },
        footer = {"", "Example: odd query-runs --stop 0f8fad5b-d9cb-469f-a165-70867728950e"})
public final class QueryRunsCommand extends ServiceCommand {
    @Option(names = "--stop", paramLabel = "NUMBER", description = "Number of the run to stop; the source cancels it.")
    @Nullable
    String stop;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        if (stop != null) {
            api().delete("/api/query-runs/" + Api.part(stop));
            out().println("Stopped.");
            return 0;
        }
        List<QueryRunView> runs = api().list("/api/query-runs", QueryRunView.class);
        output.print(out(), runs, () -> table(runs), "No queries are running.");
        return 0;
    }

    private static Listing table(List<QueryRunView> runs) {
        var table = new Listing("Number", "User", "Source", "Query", "Since", "Rows");
        for (var run : runs) {
            table.add(
                    String.valueOf(run.id()),
                    run.login(),
                    run.source(),
                    run.query(),
                    Words.time(run.since()),
                    String.valueOf(run.rows()));
        }
        return table;
    }
}
