package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.LatestCheck;
import dev.oddsentry.contract.RuleSummary;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

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
        List<RuleSummary> rules = api().list("/api/rules", RuleSummary.class);
        output.print(out(), rules, () -> table(rules), "No rules yet. Write one and save it with: odd push FILE");
        return 0;
    }

    private static Listing table(List<RuleSummary> rules) {
        var table = new Listing("Rule", "Title", "State", "Open", "Last check", "Outcome", "Next check");
        for (var rule : rules) {
            LatestCheck last = rule.latest().isEmpty() ? null : rule.latest().getFirst();
            table.add(
                    rule.name(),
                    rule.title(),
                    rule.ended() ? "ended" : Words.state(rule.state()),
                    Words.severities(rule.open()),
                    last == null ? "–" : Words.time(last.slot(), Words.zone(rule)),
                    last == null ? "–" : Words.state(last.state()),
                    Words.nextCheck(rule));
        }
        return table;
    }
}
