package dev.oddsentry.cli.data;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

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
        JsonNode all = api().get("/api/queries");
        output.print(out(), all, () -> table(all), "No queries yet. Write one and save it with: odd push FILE");
        return 0;
    }

    private static Listing table(JsonNode all) {
        var table = new Listing("Query", "Title", "Source", "Categories", "Rules", "Revision", "Saved");
        for (JsonNode each : all)
            table.add(
                    each.path("name").asString(""),
                    each.path("title").asString(""),
                    each.path("source").asString(""),
                    String.join(", ", Words.texts(each.path("categories"))),
                    each.path("rules").asString(""),
                    each.path("revision").asString(""),
                    Words.time(each.path("savedAt")));
        return table;
    }
}
