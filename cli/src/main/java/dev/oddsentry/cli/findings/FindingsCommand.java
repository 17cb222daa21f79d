package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

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
        JsonNode list = output.isTable() ? api().get(path) : Pages.all(api(), path, "findings");
        String nothing = "No findings of " + rule.name() + (state == Wanted.ALL ? "." : " are " + word(state) + ".");
        output.print(out(), list, () -> table(list), nothing);
        long shown = list.path("findings").size();
        if (list.path("total").asLong(shown) > shown)
            err().println("Only the first " + shown + " of " + list.path("total")
                    + " findings are listed. All of them: --csv or --json, or odd export " + rule.name());
        return 0;
    }

    private static String word(Wanted state) {
        return state.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static Listing table(JsonNode list) {
        boolean copies = list.path("findings")
                .valueStream()
                .anyMatch(each -> each.path("copy").isString());
        var headings = new ArrayList<>(List.of("Severity", "State", "Since", "Reported", "Handling"));
        if (copies) headings.addFirst("For");
        list.path("columns").forEach(column -> headings.add(column.path("label").asString("")));
        var table = new Listing(headings);
        for (JsonNode finding : list.path("findings")) {
            var cells = new ArrayList<>(List.of(
                    Words.severity(finding.path("severity")),
                    Words.state(finding.path("state")),
                    Words.time(finding.path("openedAt")),
                    Words.time(finding.path("reportedAt")),
                    Words.marks(finding.path("handling"))));
            if (copies) cells.addFirst(finding.path("copy").asString(""));
            list.path("columns").forEach(column -> {
                JsonNode cell = finding.path("row").path(column.path("name").asString(""));
                cells.add(cell.isString() ? cell.asString() : "missing");
            });
            table.add(cells);
        }
        return table;
    }
}
