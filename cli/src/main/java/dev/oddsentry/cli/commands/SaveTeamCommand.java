package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import java.util.List;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "save-team",
        mixinStandardHelpOptions = true,
        description = {
            "Says where a team is reached that rules name as their owner: it hears of checks that fail.",
            "A team that is not entered is reached through the operators. For operators."
        },
        footer = {"", "Example: odd save-team \"Traffic reporting\" ines.holm@skerryline.example"})
public final class SaveTeamCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "TEAM", description = "The team as the rules write it under owner.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "ADDRESS", description = "Its mail addresses.")
    @SuppressWarnings("NullAway.Init")
    List<String> addresses;

    @Override
    public Integer call() {
        JsonNode saved = api().put("/api/teams/" + Api.part(name), Map.of("addresses", addresses));
        out().println(saved.path("name").asString("") + " is reached at " + String.join(", ", addresses) + ".");
        return 0;
    }
}
