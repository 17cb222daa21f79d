package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.HandedOver;
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
        description = "Hand over what a team owns, or mail and findings of a user (operators).",
        footer = {
            "",
            "Example: odd hand-over \"Traffic reporting\" \"Fleet reporting\" --reason merged",
            "         odd hand-over --person ines per"
        })
public final class HandOverCommand extends ServiceCommand {
    @Parameters(
            index = "0",
            paramLabel = "FROM",
            description = "The team that owns it now; with --person, a log-in name.")
    @SuppressWarnings("NullAway.Init")
    String from;

    @Parameters(index = "1", paramLabel = "TO", description = "The team or the user that takes it.")
    @SuppressWarnings("NullAway.Init")
    String to;

    @Option(names = "--person", description = "FROM and TO are users: mail by name or address, and findings taken.")
    boolean person;

    @Option(names = "--reason", paramLabel = "TEXT", description = "Why; stored with each revision.")
    @Nullable
    String reason;

    @Override
    public Integer call() {
        var body = new LinkedHashMap<>(Map.of("to", to));
        if (reason != null) body.put("reason", reason);
        if (person) return handOverUser(body);
        List<TeamDefinition> handed =
                api().postForList("/api/teams/" + Api.part(from) + "/hand-over", body, TeamDefinition.class);
        for (var each : handed) out().println(each.kind() + "/" + each.name());
        out().println("Handed over to " + to + ": "
                + (handed.size() == 1 ? "1 definition." : handed.size() + " definitions."));
        return 0;
    }

    private int handOverUser(Map<String, String> body) {
        var handed = api().post("/api/people/" + Api.part(from) + "/hand-over", body, HandedOver.class);
        for (var each : handed.definitions()) out().println(each.kind() + "/" + each.name());
        for (var each : handed.teams()) out().println("address of the team " + each);
        out().println("Handed over to " + to + ": "
                + Words.count(handed.definitions().size(), "definition") + ", "
                + Words.count(handed.findings(), "finding") + ".");
        return 0;
    }
}
