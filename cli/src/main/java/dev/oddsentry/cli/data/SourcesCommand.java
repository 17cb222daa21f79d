package dev.oddsentry.cli.data;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

@Command(
        name = "sources",
        mixinStandardHelpOptions = true,
        description = "List the sources.",
        footer = {"", "Example: odd sources"})
public final class SourcesCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode sources = api().get("/api/sources");
        output.print(
                out(), sources, () -> table(sources), "No sources yet. An operator adds one with: odd save-source");
        return 0;
    }

    private static Listing table(JsonNode sources) {
        var table = new Listing("Source", "Address", "User", "Max rows", "Time limit s", "Connections", "Closed");
        for (JsonNode source : sources) {
            table.add(
                    source.path("name").asString(""),
                    source.path("jdbcUrl").asString(""),
                    source.path("username").asString(""),
                    source.path("maxRows").asString(""),
                    source.path("timeLimitSeconds").asString(""),
                    source.path("maxConnections").asString(""),
                    source.path("closed").asString(""));
        }
        return table;
    }
}
