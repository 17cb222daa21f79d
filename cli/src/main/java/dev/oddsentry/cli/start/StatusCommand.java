package dev.oddsentry.cli.start;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.StatusView;
import java.util.ArrayList;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;

@Command(
        name = "status",
        mixinStandardHelpOptions = true,
        description = {
            "Show running, late and failing checks, and queued mail.",
            "Exit status 0: no problems. 1: something needs attention. 3: the service cannot be reached."
        },
        footer = {"", "Example: odd status || notify-the-operator"})
public final class StatusCommand extends ServiceCommand {
    @Option(names = "--json", description = "The service's answer as JSON.")
    boolean json;

    @Override
    public Integer call() {
        StatusView status = api().get("/api/status", StatusView.class);
        if (json) OutputOptions.printJson(out(), status);
        else tell(status);
        return status.problems().isEmpty() ? 0 : 1;
    }

    private void tell(StatusView status) {
        var outcomes = new ArrayList<String>();
        status.outcomes().forEach((state, checks) -> outcomes.add(checks + " " + Words.state(state)));
        out().println("Node " + status.node() + ", " + Words.count(status.activeRules(), "active rule") + ".");
        out().println("  Checks: " + status.running() + " running, " + status.due() + " due"
                + (status.highestLatenessSeconds() > 0
                        ? ", the latest " + status.highestLatenessSeconds() + " s late"
                        : "")
                + "; last ended " + Words.time(status.lastFinished()) + ".");
        out().println("  Last day: " + (outcomes.isEmpty() ? "no check" : String.join(", ", outcomes)) + ".");
        out().println("  Mail: " + Words.count(status.queuedMessages(), "message") + " queued"
                + (status.queuedMessages() > 0 ? ", the oldest for " + status.oldestQueuedSeconds() + " s" : "")
                + ".");
        if (status.problems().isEmpty()) out().println("No problems.");
        status.problems().forEach(problem -> out().println("! " + problem));
    }
}
