package dev.oddsentry.cli.trying;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "extract",
        mixinStandardHelpOptions = true,
        description = "Save a rule's current exceptions as a file.",
        footer = {"", "Example: odd extract late-sailings --format xlsx --out late.xlsx"})
public final class ExtractCommand extends ServiceCommand {
    private static final List<String> FORMATS = List.of("xlsx", "csv", "pdf", "html", "json");

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    CopyOption copy;

    @Option(
            names = "--out",
            paramLabel = "FILE",
            required = true,
            description = "The file; an existing one is replaced.")
    @SuppressWarnings("NullAway.Init")
    Path out;

    @Option(
            names = "--format",
            paramLabel = "FORMAT",
            description = "xlsx, csv, pdf, html or json. Default: the file's extension.")
    @Nullable
    String format;

    @Option(
            names = "--layout",
            paramLabel = "LAYOUT",
            description = "Layout instead of the rule's: a shared one, or your own.")
    @Nullable
    String layout;

    @Override
    public Integer call() {
        String name = out.toString();
        String ending = name.substring(name.lastIndexOf('.') + 1);
        String wanted = format != null ? format : FORMATS.contains(ending) ? ending : "csv";
        api().download(
                        rule.path("/extract." + Api.part(wanted)
                                + Api.query(copy.with(layout == null ? Map.of() : Map.of("layout", layout)))),
                        out);
        out().println("Saved the current exceptions of " + rule.name() + " to " + out + ".");
        return 0;
    }
}
