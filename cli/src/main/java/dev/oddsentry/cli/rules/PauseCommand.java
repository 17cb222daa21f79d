package dev.oddsentry.cli.rules;

import picocli.CommandLine.Command;
import tools.jackson.databind.JsonNode;

@Command(
        name = "pause",
        mixinStandardHelpOptions = true,
        description = "Pause a rule; its memory is kept.",
        footer = {"", "Example: odd pause late-sailings"})
public final class PauseCommand extends RuleStateCommand {
    @Override
    String move() {
        return "pause";
    }

    @Override
    String said(String rule, JsonNode page) {
        return rule + " is paused.";
    }
}
