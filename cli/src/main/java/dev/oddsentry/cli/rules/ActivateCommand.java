package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.RulePage;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "activate",
        mixinStandardHelpOptions = true,
        description = "Activate a rule, so that it is checked on schedule.",
        footer = {"", "Example: odd activate late-sailings"})
public final class ActivateCommand extends RuleStateCommand {
    /** What the next check reports of existing findings. */
    enum Report {
        updates,
        open,
        nothing
    }

    @Option(
            names = "--report",
            paramLabel = "WHAT",
            description = "What the next check reports of existing findings: updates (since the pause; default),"
                    + " open (all open findings) or nothing (all are treated as known).")
    private @Nullable Report report;

    @Override
    String query() {
        return report == null
                ? ""
                : "?report="
                        + switch (report) {
                            case updates -> "NEW";
                            case open -> "OPEN";
                            case nothing -> "NOTHING";
                        };
    }

    @Override
    String move() {
        return "activate";
    }

    @Override
    String said(String rule, RulePage page) {
        return rule + " is active. Next check: " + Words.nextCheck(page.rule()) + ".";
    }
}
