package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

@Command(
        name = "rules",
        mixinStandardHelpOptions = true,
        description = "List rules with state, open findings and next check.",
        footer = {"", "Example: odd rules --csv"})
public final class RulesCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode rules = api().get("/api/rules");
        output.print(out(), rules, () -> table(rules), "No rules yet. Write one and save it with: odd push FILE");
        return 0;
    }

    private static Listing table(JsonNode rules) {
        var table = new Listing("Rule", "Title", "State", "Open", "Last check", "Outcome", "Next check");
        for (JsonNode rule : rules) {
            JsonNode last = rule.path("latest").path(0);
            table.add(
                    rule.path("name").asString(""),
                    rule.path("title").asString(""),
                    rule.path("ended").asBoolean(false) ? "ended" : Words.state(rule.path("state")),
                    Words.severities(rule.path("open")),
                    Words.time(last.path("slot"), Words.zone(rule)),
                    last.isMissingNode() ? "–" : Words.state(last.path("state")),
                    Words.nextCheck(rule));
        }
        return table;
    }
}
