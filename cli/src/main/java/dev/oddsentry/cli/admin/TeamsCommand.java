package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.contract.Team;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

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
        List<Team> all = api().list("/api/teams", Team.class);
        output.print(out(), all, () -> table(all), "No teams yet. An operator adds one with: odd save-team");
        return 0;
    }

    private static Listing table(List<Team> all) {
        var table = new Listing("Team", "Addresses");
        for (var each : all) table.add(each.name(), String.join(", ", each.addresses()));
        return table;
    }
}
