package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Listing;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "event",
        mixinStandardHelpOptions = true,
        description = {
            "Reports that something happened outside, such as the end of a nightly load: each active rule that listens is checked.",
            "Without a name it lists the events that rules listen to."
        },
        footer = {
            "",
            "Example: odd event sailings-loaded --value season=summer",
            "A rule listens with schedule: events: [sailings-loaded]."
        })
public final class EventCommand extends ServiceCommand {
    @Parameters(arity = "0..1", paramLabel = "EVENT", description = "Name of the event.")
    @Nullable
    String event;

    @Option(
            names = "--value",
            paramLabel = "NAME=VALUE",
            description = "A value for the parameter of that name of the rules' queries; may be repeated.")
    Map<String, String> values = new LinkedHashMap<>();

    @Option(
            names = "--request-key",
            paramLabel = "KEY",
            description = "Reporting again with the same key begins no other check.")
    @Nullable
    String requestKey;

    @Option(names = "--json", description = "What begins as JSON.")
    boolean json;

    @Override
    public Integer call() {
        if (event == null) return list();
        String key = requestKey == null ? UUID.randomUUID().toString() : requestKey;
        JsonNode heard =
                api().post("/api/events/" + Api.part(event), Map.of("values", values), Map.of("Idempotency-Key", key));
        if (json) OutputOptions.printJson(out(), heard);
        else {
            var rules = heard.path("rules")
                    .valueStream()
                    .map(rule -> rule.asString(""))
                    .toList();
            out().println(
                            rules.isEmpty()
                                    ? "No active rule listens to " + event + " just now."
                                    : event + " begins a check of " + Listing.joined(rules) + ".");
        }
        return 0;
    }

    private int list() {
        JsonNode events = api().get("/api/events");
        if (json) OutputOptions.printJson(out(), events);
        else if (events.isEmpty()) out().println("No rule listens to an event.");
        else events.forEach(each -> out().println(each.asString("")));
        return 0;
    }
}
