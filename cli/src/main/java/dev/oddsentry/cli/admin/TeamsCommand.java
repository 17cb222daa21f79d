package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

@Command(
        name = "teams",
        mixinStandardHelpOptions = true,
        description = "List teams and their addresses.",
        footer = {"", "Example: odd teams"})
public final class TeamsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode all = api().get("/api/teams");
        output.print(out(), all, () -> table(all), "No teams yet. An operator adds one with: odd save-team");
        return 0;
    }

    private static Listing table(JsonNode all) {
        var table = new Listing("Team", "Addresses");
        for (JsonNode each : all)
            table.add(each.path("name").asString(""), String.join(", ", Words.texts(each.path("addresses"))));
        return table;
    }
}
