package dev.oddsentry.cli.data;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.QuerySummary;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "queries",
        mixinStandardHelpOptions = true,
        description = "List queries, their columns and number of rules.",
        footer = {"", "Example: odd queries --csv"})
public final class QueriesCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        List<QuerySummary> all = api().list("/api/queries", QuerySummary.class);
        output.print(out(), all, () -> table(all), "No queries yet. Write one and save it with: odd push FILE");
        return 0;
    }

    private static Listing table(List<QuerySummary> all) {
        var table = new Listing("Query", "Title", "Source", "Categories", "Rules", "Revision", "Saved");
        for (var each : all)
            table.add(
                    each.name(),
                    each.title(),
                    each.source(),
                    String.join(", ", each.categories()),
                    String.valueOf(each.rules()),
                    String.valueOf(each.revision()),
                    Words.time(each.savedAt()));
        return table;
    }
}
