package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.CheckList;
import dev.oddsentry.contract.CheckView;
import dev.oddsentry.contract.CopyView;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

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
        CheckList list = copies || output.isTable()
                ? api().get(path, CheckList.class)
                : Pages.all(
                        api(),
                        path,
                        CheckList.class,
                        CheckList::checks,
                        CheckList::next,
                        (_, all) -> new CheckList(all, null));
        if (copies) return copiesOf(list.checks());
        output.print(out(), list, () -> table(list.checks()), rule.name() + " has not been checked yet.");
        if (list.next() != null)
            err().println("Only the latest " + list.checks().size()
                    + " checks are listed. All of them: --csv or --json");
        return 0;
    }

    private int copiesOf(List<CheckView> checks) {
        List<CopyView> all = checks.isEmpty()
                ? List.of()
                : api().list("/api/checks/" + checks.getFirst().id() + "/copies", CopyView.class);
        var table = new Listing("Slot", "For", "Outcome", "Rows", "Exceptions", "Reported", "To", "Reason");
        for (var copy : all)
            table.add(
                    Words.time(checks.getFirst().slot()),
                    copy.copy(),
                    Words.state(copy.state()),
                    Words.or(copy.rowsRead(), ""),
                    Words.or(copy.exceptions(), ""),
                    Words.or(copy.updates(), ""),
                    Words.addresses(copy.to()),
                    Words.or(copy.reason(), ""));
        output.print(out(), all, () -> table, rule.name() + " has no checked personal copies.");
        return 0;
    }

    private static Listing table(List<CheckView> checks) {
        var table = new Listing("Slot", "Origin", "Outcome", "Rows", "Exceptions", "Unknown", "Reported", "Reason");
        for (var check : checks) {
            table.add(
                    Words.time(check.slot()),
                    Words.or(check.event(), Words.state(check.origin())),
                    Words.state(check.state()),
                    Words.or(check.rowsRead(), ""),
                    Words.or(check.exceptions(), ""),
                    Words.or(check.unknownRows(), ""),
                    Words.or(check.updates(), ""),
                    Words.or(check.reason(), ""));
        }
        return table;
    }
}
