package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.CheckView;
import java.time.Duration;
import java.time.Instant;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        description = {
            "Check a rule now and wait for the outcome.",
            "Exit status 0: quiet or fired. 1: any other outcome."
        },
        footer = {"", "Example: odd check late-sailings"})
public final class CheckCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Option(
            names = "--request-key",
            paramLabel = "KEY",
            description = "A repeated request with the same key returns the same check.")
    @Nullable
    String requestKey;

    @Option(names = "--again", description = "Check even if a check ended within the last minute.")
    boolean again;

    @Option(names = "--json", description = "The check as JSON.")
    boolean json;

    @Override
    public Integer call() {
        Api api = api();
        // A key of our own, so that a repeat after a lost answer asks for the same check.
        String key = requestKey == null ? UUID.randomUUID().toString() : requestKey;
        String path = rule.path("/checks") + (again ? "?again=true" : "");
        var asked = Instant.now();
        CheckView check = api.post(path, null, Map.of("Idempotency-Key", key), CheckView.class);
        while (check.state().equals("RUNNING") && check.waitingFor() == null)
            check = api.post(path, null, Map.of("Idempotency-Key", key), CheckView.class);
        if (json) OutputOptions.printJson(out(), check);
        else {
            out().println(rule.name() + " " + Words.outcome(check));
            sayIfBefore(check, asked);
        }
        String state = check.state();
        return state.equals("QUIET") || state.equals("FIRED") ? 0 : 1;
    }

    /** By this machine's clock, so only what is clearly earlier. */
    private void sayIfBefore(CheckView check, Instant asked) {
        if (check.finishedAt() == null) return;
        long ago = Duration.between(check.finishedAt(), asked).toSeconds();
        if (ago >= 2 && !again)
            out().println("The latest check ended " + ago + " s ago. To check again now: odd check " + rule.name()
                    + " --again");
    }
}
