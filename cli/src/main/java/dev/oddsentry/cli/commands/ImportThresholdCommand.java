package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.output.ProblemText;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "import-threshold",
        mixinStandardHelpOptions = true,
        description =
                "Reads a threshold's values from a table: the columns of its key, from, number. All of it or nothing.",
        footer = {
            "",
            "Example: odd import-threshold poor_load poor-load.csv --remark \"summer timetable\"",
            "A line without a key is the value for all others; from may be empty. Fields are parted by a comma, a semicolon or a tab."
        })
public final class ImportThresholdCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "THRESHOLD", description = "Name of the threshold.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1", paramLabel = "FILE", description = "The table.")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--remark", required = true, paramLabel = "WHY", description = "Why; it is kept with the values.")
    @SuppressWarnings("NullAway.Init")
    String remark;

    @Option(names = "--json", description = "The service's answer as JSON.")
    boolean json;

    @Override
    public Integer call() {
        String text = read(file);
        JsonNode imported;
        try {
            imported = api().postText(
                            "/api/thresholds/" + Api.part(name) + "/values.csv?remark=" + Api.part(remark),
                            text,
                            "text/csv");
        } catch (ApiException refused) {
            if (refused.problems().isEmpty()) throw refused;
            err().println(ProblemText.of(refused));
            return 1;
        }
        if (json) OutputOptions.printJson(out(), imported);
        else
            out().println(imported.path("read") + " values read, " + imported.path("changed")
                    + " of them changed something.");
        return 0;
    }
}
