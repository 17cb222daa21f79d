package dev.oddsentry.cli.start;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import java.util.ArrayList;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

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
        JsonNode status = api().get("/api/status");
        if (json) OutputOptions.printJson(out(), status);
        else tell(status);
        return status.path("problems").isEmpty() ? 0 : 1;
    }

    private void tell(JsonNode status) {
        var outcomes = new ArrayList<String>();
        status.path("outcomes")
                .properties()
                .forEach(each -> outcomes.add(each.getValue() + " "
                        + each.getKey().toLowerCase(Locale.ROOT).replace('_', ' ')));
        out().println("Node " + status.path("node").asString("") + ", "
                + Words.count(status.path("activeRules"), "active rule") + ".");
        out().println("  Checks: " + status.path("running") + " running, " + status.path("due") + " due"
                + (status.path("highestLatenessSeconds").asLong(0) > 0
                        ? ", the latest " + status.path("highestLatenessSeconds") + " s late"
                        : "")
                + "; last ended " + Words.time(status.path("lastFinished")) + ".");
        out().println("  Last day: " + (outcomes.isEmpty() ? "no check" : String.join(", ", outcomes)) + ".");
        out().println("  Mail: " + Words.count(status.path("queuedMessages"), "message") + " queued"
                + (status.path("queuedMessages").asInt(0) > 0
                        ? ", the oldest for " + status.path("oldestQueuedSeconds") + " s"
                        : "")
                + ".");
        if (status.path("problems").isEmpty()) out().println("No problems.");
        status.path("problems").forEach(problem -> out().println("! " + problem.asString("")));
    }
}
