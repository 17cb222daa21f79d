package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.FindingList;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "findings",
        mixinStandardHelpOptions = true,
        description = "List a rule's findings, worst first.",
        footer = {"", "Example: odd findings late-sailings --state all"})
public final class FindingsCommand extends ServiceCommand {
    /** The states by which findings can be asked for. */
    enum Wanted {
        OPEN,
        PENDING,
        AGED_OUT,
        CLEARED,
        ALL
    }

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Option(
            names = "--state",
            paramLabel = "STATE",
            defaultValue = "open",
            description = "open (default), pending, aged-out, cleared or all.")
    @SuppressWarnings("NullAway.Init")
    Wanted state;

    @Override
    public Integer call() {
        String query = state == Wanted.ALL ? "" : "?state=" + state;
        String path = rule.path("/findings" + query);
        FindingList list = output.isTable()
                ? api().get(path, FindingList.class)
                : Pages.all(
                        api(),
                        path,
                        FindingList.class,
                        FindingList::findings,
                        FindingList::next,
                        (first, findings) -> new FindingList(first.columns(), findings, null, first.total()));
        String nothing = "No findings of " + rule.name() + (state == Wanted.ALL ? "." : " are " + word(state) + ".");
        output.print(out(), list, () -> table(list), nothing);
        long shown = list.findings().size();
        if (list.total() > shown)
            err().println("Only the first " + shown + " of " + list.total()
                    + " findings are listed. All of them: --csv or --json, or odd export " + rule.name());
        return 0;
    }

    private static String word(Wanted state) {
        return state.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static Listing table(FindingList list) {
        boolean copies = list.findings().stream().anyMatch(each -> each.copy() != null);
        var headings = new ArrayList<>(List.of("Severity", "State", "Since", "Reported", "Handling"));
        if (copies) headings.addFirst("For");
        list.columns().forEach(column -> headings.add(column.label()));
        var table = new Listing(headings);
        for (var finding : list.findings()) {
            var cells = new ArrayList<>(List.of(
                    Words.severity(finding.severity(), finding.look()),
                    Words.state(finding.state()),
                    Words.time(finding.openedAt()),
                    Words.time(finding.reportedAt()),
                    Words.marks(finding.handling())));
            if (copies) cells.addFirst(Words.or(finding.copy(), ""));
            list.columns().forEach(column -> cells.add(Words.or(finding.row().get(column.name()), "missing")));
            table.add(cells);
        }
        return table;
    }
}
