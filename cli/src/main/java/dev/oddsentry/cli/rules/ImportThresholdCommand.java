package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.contract.ImportedThresholdValues;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "import-threshold",
        mixinStandardHelpOptions = true,
        description = {
            "Import threshold values from a CSV table.",
            "The columns are the key columns, from and number. All lines are imported, or none."
        },
        footer = {
            "",
            "Example: odd import-threshold poor_load poor-load.csv --reason \"summer timetable\"",
            "A line without key values is the default; from may be empty. Fields are separated by commas, semicolons or tabs."
        })
public final class ImportThresholdCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "THRESHOLD", description = "Name of the threshold.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1", paramLabel = "FILE", description = "The CSV file.")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(names = "--reason", required = true, paramLabel = "WHY", description = "Reason, stored with the values.")
    @SuppressWarnings("NullAway.Init")
    String reason;

    @Option(names = "--json", description = "The service's answer as JSON.")
    boolean json;

    @Override
    public Integer call() {
        String text = read(file);
        ImportedThresholdValues imported;
        try {
            imported = api().postText(
                            "/api/thresholds/" + Api.part(name) + "/values.csv?reason=" + Api.part(reason),
                            text,
                            "text/csv",
                            ImportedThresholdValues.class);
        } catch (ApiException refused) {
            if (refused.problems().isEmpty()) throw refused;
            err().println(ProblemText.of(refused));
            return ExitStatus.of(refused);
        }
        if (json) OutputOptions.printJson(out(), imported);
        else out().println(imported.read() + " values read, " + imported.changed() + " of them changed.");
        return 0;
    }
}
