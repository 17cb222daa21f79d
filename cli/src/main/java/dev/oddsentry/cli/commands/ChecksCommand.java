package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "checks",
        mixinStandardHelpOptions = true,
        description = "Lists the latest checks of a rule and how each ended.",
        footer = {"", "Example: odd checks late-sailings"})
public final class ChecksCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    CommandSpec spec;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    ServiceOptions service;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(paramLabel = "RULE", description = "Name of the rule.")
    @SuppressWarnings("NullAway.Init")
    String rule;

    @Override
    public Integer call() {
        JsonNode checks = service.api().get("/api/rules/" + Api.part(rule) + "/checks");
        output.print(spec.commandLine().getOut(), checks, () -> table(checks), rule + " has not been checked yet.");
        return 0;
    }

    private static Listing table(JsonNode checks) {
        var table = new Listing("Slot", "Origin", "Outcome", "Rows", "Exceptions", "Unknown", "Reported", "Reason");
        for (JsonNode check : checks) {
            table.add(
                    Words.time(check.path("slot")),
                    Words.state(check.path("origin")),
                    Words.state(check.path("state")),
                    check.path("rowsRead").asString(""),
                    check.path("exceptions").asString(""),
                    check.path("unknownRows").asString(""),
                    check.path("news").asString(""),
                    check.path("reason").asString(""));
        }
        return table;
    }
}
