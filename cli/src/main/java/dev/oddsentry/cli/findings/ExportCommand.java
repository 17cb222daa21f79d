package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import java.nio.file.Path;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "export",
        mixinStandardHelpOptions = true,
        description = "Export findings or their events as CSV or JSON.",
        footer = {"", "Example: odd export late-sailings findings --out late.csv"})
public final class ExportCommand extends ServiceCommand {
    /** What of a rule's memory can be had. */
    enum What {
        FINDINGS,
        EVENTS
    }

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Parameters(index = "1", paramLabel = "WHAT", description = "findings or events.")
    @SuppressWarnings("NullAway.Init")
    What what;

    @Option(
            names = "--out",
            paramLabel = "FILE",
            required = true,
            description = "The file; an existing one is replaced.")
    @SuppressWarnings("NullAway.Init")
    Path out;

    @Option(names = "--json", description = "JSON instead of CSV: an array of objects.")
    boolean json;

    @Override
    public Integer call() {
        String name = what.name().toLowerCase(Locale.ROOT);
        api().download(rule.path("/" + name + (json ? ".json" : ".csv")), out);
        out().println("Saved the " + name + " of " + rule.name() + " to " + out + ".");
        return 0;
    }
}
