package dev.oddsentry.cli.archive;

import dev.oddsentry.cli.common.ServiceCommand;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "restore",
        mixinStandardHelpOptions = true,
        description = "Restore a retired definition; rules and round-ups stay paused.",
        footer = {"", "Example: odd restore rule/late-sailings"})
public final class RestoreCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    DefinitionArgument definition;

    @Override
    public Integer call() {
        api().post(definition.path("/restore"), null);
        out().println("Restored " + definition.written() + "." + next());
        return 0;
    }

    private String next() {
        return definition.written().startsWith("rule/")
                ? " To check it again: odd activate " + definition.written().substring("rule/".length())
                : "";
    }
}
