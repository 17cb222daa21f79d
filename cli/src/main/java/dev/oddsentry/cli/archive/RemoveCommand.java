package dev.oddsentry.cli.archive;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.RemovalCounts;
import java.util.ArrayList;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "remove",
        mixinStandardHelpOptions = true,
        description = "Remove a retired definition and its history for good (operators).",
        footer = {"", "Example: odd remove rule/late-sailings --yes"})
public final class RemoveCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    DefinitionArgument definition;

    @Option(names = "--yes", description = "Remove it. Without this, the command says what would go.")
    boolean yes;

    @Option(names = "--json", description = "The counts as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var counts = yes
                ? api().delete(definition.path(""), RemovalCounts.class)
                : api().get(definition.path("/removal"), RemovalCounts.class);
        if (json) OutputOptions.printJson(out(), counts);
        else if (yes) out().println("Removed " + definition.written() + ": " + words(counts) + ".");
        else
            out().println("This removes " + definition.written() + " for good: " + words(counts)
                    + ". To do it: odd remove " + definition.written() + " --yes");
        return 0;
    }

    private static String words(RemovalCounts counts) {
        var all = new ArrayList<>(List.of(Words.count(counts.revisions(), "revision")));
        if (counts.checks() > 0) all.add(Words.count(counts.checks(), "check"));
        if (counts.findings() > 0) all.add(Words.count(counts.findings(), "finding"));
        if (counts.messages() > 0) all.add(Words.count(counts.messages(), "message"));
        if (counts.measurements() > 0) all.add(Words.count(counts.measurements(), "measured value"));
        if (counts.thresholdValues() > 0) all.add(Words.count(counts.thresholdValues(), "threshold value"));
        return String.join(", ", all);
    }
}
