package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "recipients",
        mixinStandardHelpOptions = true,
        description = "List recipients, or what one gets.",
        footer = {"", "Example: odd recipients", "         odd recipients per.aune@skerryline.example"})
public final class RecipientsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(index = "0", arity = "0..1", paramLabel = "ADDRESS", description = "One address. Default: all.")
    @Nullable
    String address;

    @Override
    public Integer call() {
        if (address == null) {
            JsonNode all = api().get("/api/recipients");
            output.print(out(), all, () -> everybody(all), "No recipients yet.");
            return 0;
        }
        JsonNode one = api().get("/api/recipients/" + Api.part(address));
        if (one.path("blocked").isString())
            err().println("Nothing is sent to this address. "
                    + one.path("blocked").asString(""));
        output.print(out(), one, () -> gets(one), address + " gets no messages.");
        return 0;
    }

    private static Listing everybody(JsonNode all) {
        var table = new Listing("Address", "Rules", "Messages in 30 days", "Last", "Reached");
        for (JsonNode each : all)
            table.add(
                    each.path("address").asString(""),
                    each.path("rules").asString(""),
                    each.path("messages").asString(""),
                    Words.time(each.path("lastAt")),
                    each.path("blocked").asBoolean(false) ? "blocked" : "yes");
        return table;
    }

    private static Listing gets(JsonNode one) {
        var table = new Listing(
                "Sent by", "Title", "State", "Recipient field", "Messages in 30 days", "Last", "Unsubscribed");
        for (JsonNode each : one.path("gets"))
            table.add(
                    each.path("kind").asString("") + " " + each.path("name").asString(""),
                    each.path("title").asString(""),
                    Words.state(each.path("state")),
                    String.join("; ", Words.texts(each.path("how"))),
                    each.path("messages").asString(""),
                    Words.time(each.path("lastAt")),
                    Words.time(each.path("unsubscribedAt")));
        return table;
    }
}
