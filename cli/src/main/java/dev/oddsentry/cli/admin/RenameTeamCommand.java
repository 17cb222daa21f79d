package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.Team;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(
        name = "rename-team",
        mixinStandardHelpOptions = true,
        description = "Rename a team, wherever it is named (operators).",
        footer = {"", "Example: odd rename-team \"Traffic reporting\" \"Fleet reporting\""})
public final class RenameTeamCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "TEAM", description = "Name of the team.")
    @SuppressWarnings("NullAway.Init")
    String team;

    @Parameters(index = "1", paramLabel = "NAME", description = "Its new name.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Override
    public Integer call() {
        api().post("/api/teams/" + Api.part(team) + "/rename", Map.of("name", name), Team.class);
        out().println("Renamed " + team + " to " + name + ".");
        return 0;
    }
}
