package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

@Command(
        name = "teams",
        mixinStandardHelpOptions = true,
        description = "Lists the teams that own rules and hear of trouble.",
        footer = {"", "Example: odd teams"})
public final class TeamsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode all = api().get("/api/teams");
        output.print(out(), all, () -> table(all), "There is no team yet. An operator adds one with: odd save-team");
        return 0;
    }

    private static Listing table(JsonNode all) {
        var table = new Listing("Team", "Addresses");
        for (JsonNode each : all)
            table.add(each.path("name").asString(""), String.join(", ", Words.texts(each.path("addresses"))));
        return table;
    }
}
