package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.FindingSummaryList;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "all-findings",
        mixinStandardHelpOptions = true,
        description = "List findings of all rules.",
        footer = {"", "Example: odd all-findings --severity critical --handling none"})
public final class AllFindingsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    FindingFilterOptions filter;

    @Override
    public Integer call() {
        String path = filter.path();
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
