package dev.oddsentry.cli.data;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.QueryRunResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "run-query",
        mixinStandardHelpOptions = true,
        description = {
            "Run a query and show its first rows and row count.",
            "The query is a saved one or a definition file."
        },
        footer = {
            "",
            "Example: odd run-query sailings-lately --value since=\"today - 1 day\"",
            "         odd run-query sailings.query.yaml --csv"
        })
public final class RunQueryCommand extends ServiceCommand {
    /** What the service gives at most at once. */
    private static final int MOST_ROWS = 20_000;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(index = "0", paramLabel = "QUERY", description = "Name of a saved query, or a definition file.")
    @SuppressWarnings("NullAway.Init")
    String query;

    @Option(
            names = "--value",
            paramLabel = "NAME=VALUE",
            description = "Value of a parameter; others have their defaults.")
    @SuppressWarnings("NullAway.Init")
    Map<String, String> values = new LinkedHashMap<>();

    @Option(
            names = "--zone",
            paramLabel = "ZONE",
            description = "Time zone of the query and of relative dates. Default: the source's.")
    @Nullable
    String zone;

    @Option(
            names = "--rows",
            paramLabel = "N",
            description = "Number of rows, max 20000. Default: 200, or 20000 with --csv or --json.")
    @Nullable
    Integer rows;

    @Override
    public Integer call() {
        Api api = api();
        Path file = Path.of(query);
        String document =
                Files.isRegularFile(file) ? read(file) : api.text("/api/definitions/query/" + Api.part(query));
        var body = new LinkedHashMap<String, Object>();
        body.put("document", document);
        body.put("values", values);
        if (zone != null) body.put("zone", zone);
        if (rows != null || !output.isTable()) body.put("rows", rows == null ? MOST_ROWS : rows);
        QueryRunResult ran = api.post("/api/query-runs", body, QueryRunResult.class);
        output.print(out(), ran, () -> table(ran), "The query returned no rows.");
        err().println(Words.count(ran.rowsRead(), "row") + " in " + ran.tookMillis() + " ms, in time zone "
                + ran.zone()
                + (ran.rows().size() < ran.rowsRead()
                        ? ", the first " + ran.rows().size() + " shown; --rows shows more, up to 20000."
                        : "."));
        return 0;
    }

    private static Listing table(QueryRunResult ran) {
        var heads = new ArrayList<String>();
        ran.columns().forEach(column -> heads.add(column.label()));
        var table = new Listing(heads.toArray(String[]::new));
        for (var row : ran.rows()) {
            var cells = new ArrayList<String>();
            row.forEach(cell -> cells.add(Words.or(cell, "")));
            table.add(cells.toArray(String[]::new));
        }
        return table;
    }
}
