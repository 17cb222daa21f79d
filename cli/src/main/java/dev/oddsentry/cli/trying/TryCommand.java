package dev.oddsentry.cli.trying;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.ConditionTrialResult;
import java.io.PrintWriter;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "try",
        mixinStandardHelpOptions = true,
        description = "Test a condition on a query's rows, without a rule.",
        footer = {
            "",
            "Example: odd try --query sailings-lately --key sailing --rows \"delay_min > 15 and reason is null\"",
            "         odd try --query sailings-lately --per route --rows \"share(where heads is null) > 0.1\""
        })
public final class TryCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(names = "--query", required = true, paramLabel = "QUERY", description = "Name of the query.")
    @SuppressWarnings("NullAway.Init")
    String query;

    @Option(
            names = "--per",
            split = ",",
            paramLabel = "COLUMN",
            description = "Evaluate groups by these columns instead of rows; --per all: the whole result.")
    @Nullable
    List<String> per;

    @Option(names = "--key", split = ",", paramLabel = "COLUMN", description = "Key columns. Default: the whole row.")
    List<String> key = List.of();

    @Option(names = "--parameter", paramLabel = "NAME=VALUE", description = "Value of a parameter of the query.")
    Map<String, String> parameters = Map.of();

    @Option(names = "--zone", paramLabel = "ZONE", description = "Time zone of relative dates (UTC).")
    @Nullable
    String zone;

    @Option(names = "--at", paramLabel = "INSTANT", description = "Evaluate at another time.")
    @Nullable
    Instant at;

    @Option(names = "--rows", description = "Include whole rows, not only their keys.")
    boolean rows;

    @Parameters(paramLabel = "CONDITION", description = "A condition, as under exceptions in a rule.")
    @SuppressWarnings("NullAway.Init")
    String condition;

    @Override
    public Integer call() {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("condition", condition);
        body.put("parameters", parameters);
        body.put("per", per == null ? null : isWhole() ? List.of() : per);
        body.put("key", key);
        body.put("zone", zone);
        body.put("at", at == null ? null : at.toString());
        ConditionTrialResult tried;
        try {
            tried = api().post("/api/queries/" + Api.part(query) + "/try", body, ConditionTrialResult.class);
        } catch (ApiException refused) {
            if (refused.problems().isEmpty()) throw refused;
            err().println(ProblemText.of(refused, "condition", condition));
            return ExitStatus.of(refused);
        }
        PrintWriter out = out();
        if (output.isTable()) summarise(out, tried);
        output.print(out, rows ? tried : withoutRows(tried), () -> table(tried), "No exceptions.");
        return 0;
    }

    private static void summarise(PrintWriter out, ConditionTrialResult tried) {
        out.println(Words.count(tried.rowsRead(), "row") + " read, " + Words.count(tried.exceptions(), "exception")
                + ", " + tried.unknownRows() + " unknown.");
        Words.parts(tried.parts(), tried.grouped()).forEach(out::println);
        Words.advice(tried.suggestions(), tried.warnings(), tried.grouped()).forEach(out::println);
        int listed = tried.identities().size();
        if (listed < tried.exceptions()) out.println("The first " + listed + " exceptions are listed.");
        out.println();
    }

    private Listing table(ConditionTrialResult tried) {
        var headings = rows ? tried.columns() : identityHeadings(tried);
        var table = new Listing(headings);
        for (var row : rows ? tried.rows() : tried.identities()) {
            var cells = new ArrayList<String>();
            for (String cell : row) cells.add(Words.or(cell, "missing"));
            if (cells.isEmpty()) cells.add("the whole result");
            table.add(cells);
        }
        return table;
    }

    private static ConditionTrialResult withoutRows(ConditionTrialResult tried) {
        return new ConditionTrialResult(
                tried.columns(),
                tried.exceptions(),
                tried.grouped(),
                tried.identities(),
                tried.parts(),
                List.of(),
                tried.rowsRead(),
                tried.suggestions(),
                tried.unknownRows(),
                tried.warnings());
    }

    private boolean isWhole() {
        return List.of("all").equals(per);
    }

    private List<String> identityHeadings(ConditionTrialResult tried) {
        if (per != null) return isWhole() ? List.of("group") : per;
        if (!key.isEmpty()) return key;
        var headings = new ArrayList<>(tried.columns());
        headings.add("copy");
        return headings;
    }
}
