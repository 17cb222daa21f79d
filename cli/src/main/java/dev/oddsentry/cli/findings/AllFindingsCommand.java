package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.FindingSummaryList;
import java.util.LinkedHashMap;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "all-findings",
        mixinStandardHelpOptions = true,
        description = "List findings of all rules.",
        footer = {"", "Example: odd all-findings --severity critical --handling none"})
public final class AllFindingsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(names = "--state", paramLabel = "STATE", description = "open, pending, out-of-sight or cleared.")
    @Nullable
    String state;

    @Option(names = "--severity", paramLabel = "SEVERITY", description = "critical, warning or notice.")
    @Nullable
    String severity;

    @Option(names = "--handling", paramLabel = "HOW", description = "none, taken, snoozed or accepted.")
    @Nullable
    String marked;

    @Option(names = "--rule", paramLabel = "RULE", description = "Only findings of this rule.")
    @Nullable
    String rule;

    @Option(
            names = "--find",
            paramLabel = "TEXT",
            description = "Only findings with this text in their row, key or rule.")
    @Nullable
    String find;

    private static @Nullable String code(@Nullable String written) {
        return written == null ? null : written.toUpperCase(Locale.ROOT).replace('-', '_');
    }

    @Override
    public Integer call() {
        var asked = new LinkedHashMap<String, @Nullable String>();
        asked.put("state", code(state));
        asked.put("severity", code(severity));
        asked.put("handling", code(marked));
        asked.put("rule", rule);
        asked.put("q", find);
        String path = "/api/findings" + Api.query(asked);
        FindingSummaryList all = output.isTable()
                ? api().get(path, FindingSummaryList.class)
                : Pages.all(
                        api(),
                        path,
                        FindingSummaryList.class,
                        FindingSummaryList::findings,
                        FindingSummaryList::next,
                        (first, findings) -> new FindingSummaryList(first.byRule(), findings, null, first.total()));
        output.print(out(), all, () -> table(all), "No findings match.");
        long shown = all.findings().size();
        if (all.total() > shown)
            err().println("Only the first " + shown + " of " + all.total()
                    + " findings are listed. All of them: --csv or --json.");
        return 0;
    }

    private static Listing table(FindingSummaryList all) {
        var table = new Listing("Severity", "Rule", "Finding", "State", "Since", "Handling");
        for (var each : all.findings())
            table.add(
                    Words.severity(each.severity(), each.look()),
                    each.rule(),
                    each.identity(),
                    Words.state(each.state()),
                    Words.time(each.openedAt()),
                    Words.marks(each.handling()));
        return table;
    }
}
