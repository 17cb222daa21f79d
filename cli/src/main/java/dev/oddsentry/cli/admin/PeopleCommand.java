package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

@Command(
        name = "people",
        mixinStandardHelpOptions = true,
        description = "List the users.",
        footer = {"", "Example: odd people"})
public final class PeopleCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode all = api().get("/api/people");
        output.print(out(), all, () -> table(all), "No users yet.");
        return 0;
    }

    private static Listing table(JsonNode all) {
        var table = new Listing("Log-in", "Name", "Address", "Role");
        for (JsonNode each : all)
            table.add(
                    each.path("login").asString(""),
                    each.path("name").asString(""),
                    each.path("email").asString(""),
                    Words.state(each.path("role")));
        return table;
    }
}
