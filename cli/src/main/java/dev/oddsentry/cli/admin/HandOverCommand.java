package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.TeamDefinition;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "hand-over",
        mixinStandardHelpOptions = true,
        description = "Hand all that a team owns over to another team (operators).",
        footer = {"", "Example: odd hand-over \"Traffic reporting\" \"Fleet reporting\" --reason merged"})
public final class HandOverCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "TEAM", description = "The team that owns it now.")
    @SuppressWarnings("NullAway.Init")
    String team;

    @Parameters(index = "1", paramLabel = "TO", description = "The team that takes it.")
    @SuppressWarnings("NullAway.Init")
    String to;

    @Option(names = "--reason", paramLabel = "TEXT", description = "Why; stored with each revision.")
    @Nullable
    String reason;

    @Override
    public Integer call() {
        var body = new LinkedHashMap<>(Map.of("to", to));
        if (reason != null) body.put("reason", reason);
        List<TeamDefinition> handed =
                api().postForList("/api/teams/" + Api.part(team) + "/hand-over", body, TeamDefinition.class);
        for (var each : handed) out().println(each.kind() + "/" + each.name());
        out().println("Handed over to " + to + ": "
                + (handed.size() == 1 ? "1 definition." : handed.size() + " definitions."));
        return 0;
    }
}
