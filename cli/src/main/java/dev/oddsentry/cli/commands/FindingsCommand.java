package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "findings",
        mixinStandardHelpOptions = true,
        description = "Lists what a rule has found and remembers, worst first.",
        footer = {"", "Example: odd findings late-sailings --state all"})
public final class FindingsCommand implements Callable<Integer> {
    /** The states by which findings can be asked for. */
    enum Wanted {
        OPEN,
        OUT_OF_SIGHT,
        CLEARED,
        ALL
    }

    @Spec
    @SuppressWarnings("NullAway.Init")
    CommandSpec spec;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    ServiceOptions service;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(paramLabel = "RULE", description = "Name of the rule.")
    @SuppressWarnings("NullAway.Init")
    String rule;

    @Option(
            names = "--state",
            paramLabel = "STATE",
            defaultValue = "open",
            description = "open (the default), out_of_sight, cleared or all.")
    @SuppressWarnings("NullAway.Init")
    Wanted state;

    @Override
    public Integer call() {
        String query = state == Wanted.ALL ? "" : "?state=" + state;
        JsonNode list = service.api().get("/api/rules/" + Api.part(rule) + "/findings" + query);
        String nothing = "No finding of " + rule + (state == Wanted.ALL ? "." : " is " + word(state) + ".");
        output.print(spec.commandLine().getOut(), list, () -> table(list), nothing);
        return 0;
    }

    private static String word(Wanted state) {
        return state.name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    private static Listing table(JsonNode list) {
        var headings = new ArrayList<>(List.of("Severity", "State", "Since", "Reported"));
        list.path("columns").forEach(column -> headings.add(column.path("label").asString("")));
        var table = new Listing(headings);
        for (JsonNode finding : list.path("findings")) {
            var cells = new ArrayList<>(List.of(
                    Words.severity(finding.path("severity")),
                    Words.state(finding.path("state")),
                    Words.time(finding.path("openedAt")),
                    Words.time(finding.path("reportedAt"))));
            list.path("columns").forEach(column -> {
                JsonNode cell = finding.path("row").path(column.path("name").asString(""));
                cells.add(cell.isString() ? cell.asString() : "missing");
            });
            table.add(cells);
        }
        return table;
    }
}
