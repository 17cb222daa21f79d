package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.output.Words;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "activate",
        mixinStandardHelpOptions = true,
        description = "Makes a rule active: it is checked on its schedule and mails what is new.",
        footer = {"", "Example: odd activate late-sailings"})
public final class ActivateCommand extends RuleMoveCommand {
    /** What the next check tells of what is there already. */
    enum Tell {
        OPEN,
        NEW,
        NOTHING
    }

    @Option(
            names = "--tell",
            paramLabel = "WHAT",
            description =
                    "What its next check tells of what is there: open (everything that is open), new (what is new since it was"
                            + " paused; the default), nothing (all is taken as known).")
    private @Nullable Tell tell;

    @Override
    String query() {
        return tell == null ? "" : "?tell=" + tell;
    }

    @Override
    String move() {
        return "activate";
    }

    @Override
    String said(String rule, JsonNode page) {
        return rule + " is active. Next check: " + Words.time(page.path("rule").path("nextSlot")) + ".";
    }
}
