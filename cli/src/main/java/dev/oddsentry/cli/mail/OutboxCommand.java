package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "outbox",
        mixinStandardHelpOptions = true,
        description = "List messages and their delivery state.",
        footer = {"", "Example: odd outbox --rule late-sailings"})
public final class OutboxCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(names = "--rule", paramLabel = "RULE", description = "Only messages of this rule.")
    @Nullable
    String rule;

    @Option(
            names = "--search",
            paramLabel = "TEXT",
            description = "Only messages with this text in the subject or an address.")
    @Nullable
    String search;

    @Option(
            names = "--state",
            paramLabel = "STATE",
            description =
                    "Only messages with a recipient in this state: queued, sending, sent, unsure, unconfirmed, rejected, expired or cancelled.")
    @Nullable
    String state;

    @Override
    public Integer call() {
        var asked = new HashMap<String, @Nullable String>();
        asked.put("rule", rule);
        asked.put("q", search);
        asked.put("state", state == null ? null : state.toUpperCase(Locale.ROOT).replace(' ', '_'));
        String path = "/api/outbox" + Api.query(asked);
        JsonNode list = output.isTable() ? api().get(path) : Pages.all(api(), path, "messages");
        output.print(out(), list, () -> table(list.path("messages")), "No messages match.");
        if (list.path("next").isString())
            err().println("Only the newest " + list.path("messages").size()
                    + " messages are listed. All of them: --csv or --json");
        return 0;
    }

    private static Listing table(JsonNode messages) {
        var table = new Listing("Queued", "Sent by", "Subject", "Recipients");
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
        String marks = (message.path("preview").asBoolean(false) ? ", preview" : "")
                + (message.path("repeat").asBoolean(false) ? ", resent" : "")
                + (message.path("held").asBoolean(false) ? ", held" : "");
        return madeBy(message) + marks;
    }

    private static String madeBy(JsonNode message) {
        if (!message.path("roundUp").isNull())
            return "round-up " + message.path("roundUp").asString("");
        return message.path("rule").asString("failure notice");
    }
}
