package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import picocli.CommandLine.Command;
import picocli.CommandLine.Parameters;

@Command(
        name = "remove-team",
        mixinStandardHelpOptions = true,
        description = "Remove a team that no definition names (operators).",
        footer = {"", "Example: odd remove-team \"Traffic reporting\""})
public final class RemoveTeamCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "TEAM", description = "Name of the team.")
    @SuppressWarnings("NullAway.Init")
    String team;

    @Override
    public Integer call() {
        api().delete("/api/teams/" + Api.part(team));
        out().println("Removed the team " + team + ".");
        return 0;
    }
}
