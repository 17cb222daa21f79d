package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.Team;
import java.util.List;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(
        name = "save-team",
        mixinStandardHelpOptions = true,
        description = {
            "Set a team's addresses (operators).",
            "They get failure notices. Notices of teams without addresses go to the operators."
        },
        footer = {"", "Example: odd save-team \"Traffic reporting\" ines.holm@skerryline.example"})
public final class SaveTeamCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "TEAM", description = "Name of the team, as rules write it under owner.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1..*", arity = "1..*", paramLabel = "ADDRESS", description = "Email addresses of the team.")
    @SuppressWarnings("NullAway.Init")
    List<String> addresses;

    @Override
    public Integer call() {
        Team saved = api().put("/api/teams/" + Api.part(name), Map.of("addresses", addresses), Team.class);
        out().println(saved.name() + " gets failure notices at " + String.join(", ", addresses) + ".");
        return 0;
    }
}
