package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import java.nio.file.Path;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "extract",
        mixinStandardHelpOptions = true,
        description =
                "Writes the present exceptions of a rule, in its layout, to a CSV file. Nothing is reported or remembered.",
        footer = {"", "Example: odd extract late-sailings --out late.csv"})
public final class ExtractCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    CopyOption copy;

    @Option(names = "--out", paramLabel = "FILE", required = true, description = "The file; replaced if it is there.")
    @SuppressWarnings("NullAway.Init")
    Path out;

    @Override
    public Integer call() {
        api().download(rule.path("/extract.csv" + Api.query(copy.with(Map.of()))), out);
        out().println("Saved the present exceptions of " + rule.name() + " to " + out + ".");
        return 0;
    }
}
