package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.OpenFindings;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "findings-over-time",
        mixinStandardHelpOptions = true,
        description = "Count findings per day; show how long they stay open.",
        footer = {"", "Example: odd findings-over-time --days 30 --by team"})
public final class FindingsOverTimeCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(names = "--days", paramLabel = "N", description = "Up to today, max 400. Default: ${DEFAULT-VALUE}.")
    int days = 90;

    enum By {
        RULE,
        TEAM
    }

    @Option(names = "--by", paramLabel = "rule|team", description = "One line for each. Default: rule.")
    By by = By.RULE;

    @Option(names = "--rule", paramLabel = "NAME", description = "Only this rule.")
    @Nullable
    String rule;

    @Option(names = "--zone", paramLabel = "ZONE", description = "Zone of days. Default: this machine's.")
    ZoneId zone = ZoneId.systemDefault();

    @Override
    public Integer call() {
        var asked = new LinkedHashMap<String, @Nullable String>();
        asked.put("days", String.valueOf(days));
        asked.put("by", by.name());
        asked.put("rule", rule);
        asked.put("zone", zone.getId());
        var found = api().get("/api/findings/over-time" + Api.query(asked), OpenFindings.class);
        output.print(out(), found, () -> table(found), "No findings were open in these days.");
        return 0;
    }

    private Listing table(OpenFindings found) {
        var table = new Listing(
                by == By.RULE ? "Rule" : "Team",
                "Open " + found.from(),
                "Now",
                "Opened",
                "Cleared",
                "Aged out",
                "Median time to clear",
                "Oldest open since");
        for (var line : found.lines())
            table.add(
                    line.name(),
                    String.valueOf(line.open().getFirst()),
                    String.valueOf(line.open().getLast()),
                    String.valueOf(line.opened()),
                    String.valueOf(line.cleared()),
                    String.valueOf(line.agedOut()),
                    line.medianSeconds() == null ? "–" : Words.duration(line.medianSeconds()),
                    Words.time(line.oldest(), zone));
        return table;
    }
}
