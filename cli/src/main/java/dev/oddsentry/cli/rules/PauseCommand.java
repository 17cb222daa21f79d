package dev.oddsentry.cli.rules;

import dev.oddsentry.contract.RulePage;
import picocli.CommandLine.Command;

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
    String said(String rule, RulePage page) {
        return rule + " is paused.";
    }
}
