package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "pause",
        mixinStandardHelpOptions = true,
        description = "Pauses a rule: it is not checked until it is made active again. Its memory stays.",
        footer = {"", "Example: odd pause late-sailings"})
public final class PauseCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    CommandSpec spec;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    ServiceOptions service;

    @Parameters(paramLabel = "RULE", description = "Name of the rule.")
    @SuppressWarnings("NullAway.Init")
    String rule;

    @Option(names = "--json", description = "The rule as JSON.")
    boolean json;

    @Override
    public Integer call() {
        JsonNode page = service.api().post("/api/rules/" + Api.part(rule) + "/pause", null);
        if (json) OutputOptions.printJson(spec.commandLine().getOut(), page);
        else spec.commandLine().getOut().println(rule + " is paused.");
        return 0;
    }
}
