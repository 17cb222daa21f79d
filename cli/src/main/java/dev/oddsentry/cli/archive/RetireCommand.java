package dev.oddsentry.cli.archive;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.RetiredDefinition;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "retire",
        mixinStandardHelpOptions = true,
        description = "Retire a definition: out of every list, with its history kept.",
        footer = {"", "Example: odd retire rule/late-sailings --reason \"the line closed\""})
public final class RetireCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    DefinitionArgument definition;

    @Option(names = "--reason", required = true, paramLabel = "TEXT", description = "Why; others read it.")
    @SuppressWarnings("NullAway.Init")
    String reason;

    @Option(names = "--json", description = "The retired definition as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var retired = api().post(definition.path("/retire"), Map.of("reason", reason), RetiredDefinition.class);
        if (json) OutputOptions.printJson(out(), retired);
        else out().println("Retired " + definition.written() + ". To restore it: odd restore " + definition.written());
        return 0;
    }
}
