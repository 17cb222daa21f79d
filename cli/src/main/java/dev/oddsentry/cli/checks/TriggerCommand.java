package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.contract.EventReceipt;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "trigger",
        mixinStandardHelpOptions = true,
        description = {"Send an external event to start checks.", "Without a name: list the events that rules use."},
        footer = {
            "",
            "Example: odd trigger sailings-loaded --value season=summer",
            "A rule uses it with schedule: events: [sailings-loaded]."
        })
public final class TriggerCommand extends ServiceCommand {
    @Parameters(arity = "0..1", paramLabel = "EVENT", description = "Name of the event.")
    @Nullable
    String event;

    @Option(
            names = "--value",
            paramLabel = "NAME=VALUE",
            description = "Value of the parameter of that name; may be repeated.")
    Map<String, String> values = new LinkedHashMap<>();

    @Option(
            names = "--request-key",
            paramLabel = "KEY",
            description = "A repeated request with the same key starts no other check.")
    @Nullable
    String requestKey;

    @Option(names = "--json", description = "The started checks as JSON.")
    boolean json;

    @Override
    public Integer call() {
        if (event == null) return list();
        String key = requestKey == null ? UUID.randomUUID().toString() : requestKey;
        EventReceipt heard = api().post(
                        "/api/events/" + Api.part(event),
                        Map.of("values", values),
                        Map.of("Idempotency-Key", key),
                        EventReceipt.class);
        if (json) OutputOptions.printJson(out(), heard);
        else {
            var rules = heard.rules();
            out().println(
                            rules.isEmpty()
                                    ? "No active rule uses the event " + event + " just now."
                                    : event + " starts a check of " + Listing.joined(rules) + ".");
        }
        return 0;
    }

    private int list() {
        List<String> events = api().list("/api/events", String.class);
        if (json) OutputOptions.printJson(out(), events);
        else if (events.isEmpty()) out().println("No rule uses external events.");
        else events.forEach(out()::println);
        return 0;
    }
}
