package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

@Command(
        name = "checks",
        mixinStandardHelpOptions = true,
        description = "Lists the latest checks of a rule and how each ended.",
        footer = {"", "Example: odd checks late-sailings"})
public final class ChecksCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Override
    public Integer call() {
        JsonNode checks = api().get(rule.path("/checks"));
        output.print(out(), checks, () -> table(checks), rule.name() + " has not been checked yet.");
        return 0;
    }

    private static Listing table(JsonNode checks) {
        var table = new Listing("Slot", "Origin", "Outcome", "Rows", "Exceptions", "Unknown", "Reported", "Reason");
        for (JsonNode check : checks) {
            table.add(
                    Words.time(check.path("slot")),
                    check.path("event").asString(Words.state(check.path("origin"))),
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
