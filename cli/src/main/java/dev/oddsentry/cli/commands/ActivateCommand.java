package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Words;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "activate",
        mixinStandardHelpOptions = true,
        description = "Makes a rule active: it is checked on its schedule and mails what is new.",
        footer = {"", "Example: odd activate late-sailings"})
public final class ActivateCommand implements Callable<Integer> {
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
        JsonNode page = service.api().post("/api/rules/" + Api.part(rule) + "/activate", null);
        if (json) OutputOptions.printJson(spec.commandLine().getOut(), page);
        else
            spec.commandLine()
                    .getOut()
                    .println(rule + " is active. Next check: "
                            + Words.time(page.path("rule").path("nextSlot")) + ".");
        return 0;
    }
}
