package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.output.Words;
import picocli.CommandLine.Command;
import tools.jackson.databind.JsonNode;

@Command(
        name = "activate",
        mixinStandardHelpOptions = true,
        description = "Makes a rule active: it is checked on its schedule and mails what is new.",
        footer = {"", "Example: odd activate late-sailings"})
public final class ActivateCommand extends RuleMoveCommand {
    @Override
    String move() {
        return "activate";
    }

    @Override
    String said(String rule, JsonNode page) {
        return rule + " is active. Next check: " + Words.time(page.path("rule").path("nextSlot")) + ".";
    }
}
