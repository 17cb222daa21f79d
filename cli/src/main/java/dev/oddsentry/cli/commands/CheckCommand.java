package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Words;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Callable;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.JsonNode;

@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        description = "Checks a rule now and waits for the outcome. What is new is mailed.",
        footer = {"", "Example: odd check late-sailings", "Exit status 1 if the check failed."})
public final class CheckCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    CommandSpec spec;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    ServiceOptions service;

    @Parameters(paramLabel = "RULE", description = "Name of the rule.")
    @SuppressWarnings("NullAway.Init")
    String rule;

    @Option(
            names = "--request-key",
            paramLabel = "KEY",
            description = "Asking again with the same key gives the same check.")
    @Nullable
    String requestKey;

    @Option(names = "--json", description = "The check as JSON.")
    boolean json;

    @Override
    public Integer call() {
        Api api = service.api();
        // A key of our own, so that a repeat after a lost answer asks for the same check.
        String key = requestKey == null ? UUID.randomUUID().toString() : requestKey;
        JsonNode check = api.post("/api/rules/" + Api.part(rule) + "/checks", null, Map.of("Idempotency-Key", key));
        while (check.path("state").asString("").equals("RUNNING"))
            check = api.post("/api/rules/" + Api.part(rule) + "/checks", null, Map.of("Idempotency-Key", key));
        if (json) OutputOptions.printJson(spec.commandLine().getOut(), check);
        else spec.commandLine().getOut().println(rule + " " + Words.outcome(check));
        String state = check.path("state").asString("");
        return state.equals("QUIET") || state.equals("FIRED") ? 0 : 1;
    }
}
