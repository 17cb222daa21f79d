package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "activate",
        mixinStandardHelpOptions = true,
        description = "Makes a rule active: it is checked on its schedule and mails what is new.",
        footer = {"", "Example: odd activate late-sailings"})
public final class ActivateCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Option(names = "--json", description = "The rule as JSON.")
    boolean json;

    @Override
    public Integer call() {
        JsonNode page = api().post(rule.path("/activate"), null);
        if (json) OutputOptions.printJson(out(), page);
        else
            spec().commandLine()
                    .getOut()
                    .println(rule.name() + " is active. Next check: "
                            + Words.time(page.path("rule").path("nextSlot")) + ".");
        return 0;
    }
}
