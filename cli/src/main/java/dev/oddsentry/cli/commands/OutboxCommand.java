package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.ArrayList;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "outbox",
        mixinStandardHelpOptions = true,
        description = "Lists the mail that was queued, and where each recipient of it stands.",
        footer = {"", "Example: odd outbox --rule late-sailings"})
public final class OutboxCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(names = "--rule", paramLabel = "RULE", description = "Only mail of this rule.")
    @Nullable
    String rule;

    @Override
    public Integer call() {
        JsonNode messages = api().get("/api/outbox" + (rule == null ? "" : "?rule=" + Api.part(rule)));
        output.print(out(), messages, () -> table(messages), "No mail was queued yet.");
        return 0;
    }

    private static Listing table(JsonNode messages) {
        var table = new Listing("Queued", "Because of", "Subject", "Recipients");
        for (JsonNode message : messages) {
            var recipients = new ArrayList<String>();
            for (JsonNode recipient : message.path("recipients")) {
                recipients.add(recipient.path("address").asString("") + " " + Words.state(recipient.path("state")));
            }
            table.add(
                    Words.time(message.path("createdAt")),
                    cause(message),
                    message.path("subject").asString(""),
                    Listing.joined(recipients));
        }
        return table;
    }

    private static String cause(JsonNode message) {
        if (!message.path("roundUp").isNull())
            return "round-up " + message.path("roundUp").asString("");
        return message.path("rule").asString("trouble");
    }
}
