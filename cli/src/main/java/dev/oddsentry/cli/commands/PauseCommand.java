package dev.oddsentry.cli.commands;

import picocli.CommandLine.Command;
import tools.jackson.databind.JsonNode;

@Command(
        name = "pause",
        mixinStandardHelpOptions = true,
        description = "Pauses a rule: it is not checked until it is made active again. Its memory stays.",
        footer = {"", "Example: odd pause late-sailings"})
public final class PauseCommand extends RuleMoveCommand {
    @Override
    String move() {
        return "pause";
    }

    @Override
    String said(String rule, JsonNode page) {
        return rule + " is paused.";
    }
}
