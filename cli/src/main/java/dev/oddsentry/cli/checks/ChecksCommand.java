package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "checks",
        mixinStandardHelpOptions = true,
        description = "List a rule's latest checks and outcomes.",
        footer = {"", "Example: odd checks late-sailings", "         odd checks duty-day --copies"})
public final class ChecksCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Option(names = "--copies", description = "Show the outcome of each personal copy in the latest check.")
    boolean copies;

    @Override
    public Integer call() {
        String path = rule.path("/checks");
        JsonNode list = copies || output.isTable() ? api().get(path) : Pages.all(api(), path, "checks");
        if (copies) return copiesOf(list.path("checks").path(0));
        output.print(out(), list, () -> table(list.path("checks")), rule.name() + " has not been checked yet.");
        if (list.path("next").isString())
            err().println("Only the latest " + list.path("checks").size()
                    + " checks are listed. All of them: --csv or --json");
        return 0;
    }

    private int copiesOf(JsonNode check) {
        JsonNode all = check.isMissingNode()
                ? check
                : api().get("/api/checks/" + Api.part(check.path("id").asString("")) + "/copies");
        output.print(out(), all, () -> table(check, all), rule.name() + " has no checked personal copies.");
        return 0;
    }

    private static Listing table(JsonNode check, JsonNode copies) {
        var table = new Listing("Slot", "For", "Outcome", "Rows", "Exceptions", "Reported", "To", "Reason");
        for (JsonNode copy : copies) {
            table.add(
                    Words.time(check.path("slot")),
                    copy.path("copy").asString(""),
                    Words.state(copy.path("state")),
                    copy.path("rowsRead").asString(""),
                    copy.path("exceptions").asString(""),
                    copy.path("updates").asString(""),
                    Words.addresses(copy.path("to")),
                    copy.path("reason").asString(""));
        }
        return table;
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
                    check.path("updates").asString(""),
                    check.path("reason").asString(""));
        }
        return table;
    }
}
