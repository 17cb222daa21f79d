package dev.oddsentry.cli.data;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.SourceTestOutcome;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "test-source",
        mixinStandardHelpOptions = true,
        description = {"Test the connection to a source.", "Exit status 0: connected. 1: not connected."},
        footer = {"", "Example: odd test-source ferry"})
public final class TestSourceCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "SOURCE", description = "Name of the source.")
    @SuppressWarnings("NullAway.Init")
    String source;

    @Option(names = "--json", description = "The result as JSON.")
    boolean json;

    @Override
    public Integer call() {
        SourceTestOutcome tried =
                api().post("/api/sources/" + Api.part(source) + "/test", null, SourceTestOutcome.class);
        if (json) OutputOptions.printJson(out(), tried);
        else {
            out().println(tried.detail());
            for (var warning : tried.warnings()) out().println("Warning: " + warning);
        }
        return tried.reached() ? 0 : 1;
    }
}
