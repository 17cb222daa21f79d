package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.contract.TeamDefinition;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

@Command(
        name = "team",
        mixinStandardHelpOptions = true,
        description = "List what a team owns, and what mails it.",
        footer = {"", "Example: odd team \"Traffic reporting\""})
public final class TeamCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "TEAM", description = "Name of the team.")
    @SuppressWarnings("NullAway.Init")
    String team;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        List<TeamDefinition> all = api().list("/api/teams/" + Api.part(team) + "/definitions", TeamDefinition.class);
        output.print(out(), all, () -> table(all), team + " owns nothing, and nothing mails it.");
        return 0;
    }

    private static Listing table(List<TeamDefinition> all) {
        var table = new Listing("Definition", "Title", "Owner", "Recipient", "Shown to it", "State");
        for (var each : all)
            table.add(
                    each.kind() + "/" + each.name(),
                    each.title(),
                    each.owned() ? "yes" : "",
                    each.mailed() ? "yes" : "",
                    each.shown() ? "yes" : "",
                    each.retired() ? "retired" : "");
        return table;
    }
}
