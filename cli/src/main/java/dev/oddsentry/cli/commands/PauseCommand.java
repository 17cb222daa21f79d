package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "pause",
        mixinStandardHelpOptions = true,
        description = "Pauses a rule: it is not checked until it is made active again. Its memory stays.",
        footer = {"", "Example: odd pause late-sailings"})
public final class PauseCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Option(names = "--json", description = "The rule as JSON.")
    boolean json;

    @Override
    public Integer call() {
        JsonNode page = api().post(rule.path("/pause"), null);
        if (json) OutputOptions.printJson(out(), page);
        else out().println(rule.name() + " is paused.");
        return 0;
    }
}
