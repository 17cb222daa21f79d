package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "readers",
        mixinStandardHelpOptions = true,
        description = "Lists who gets mail, by address; of one address, which rules and round-ups it hears of and why.",
        footer = {"", "Example: odd readers", "         odd readers per.aune@skerryline.example"})
public final class ReadersCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(index = "0", arity = "0..1", paramLabel = "ADDRESS", description = "Everybody, if left out.")
    @Nullable
    String address;

    @Override
    public Integer call() {
        if (address == null) {
            JsonNode all = api().get("/api/readers");
            output.print(out(), all, () -> everybody(all), "Nobody gets mail yet.");
            return 0;
        }
        JsonNode one = api().get("/api/readers/" + Api.part(address));
        if (one.path("bad").isString())
            err().println("No mail goes there. " + one.path("bad").asString(""));
        output.print(out(), one, () -> gets(one), address + " gets nothing.");
        return 0;
    }

    private static Listing everybody(JsonNode all) {
        var table = new Listing("Address", "Rules", "Mails in 30 days", "Last", "Reached");
        for (JsonNode each : all)
            table.add(
                    each.path("address").asString(""),
                    each.path("rules").asString(""),
                    each.path("messages").asString(""),
                    Words.time(each.path("lastAt")),
                    each.path("bad").asBoolean(false) ? "mail comes back" : "yes");
        return table;
    }

    private static Listing gets(JsonNode one) {
        var table =
                new Listing("What", "Title", "State", "Named in", "Mails in 30 days", "Last", "Stopped by the reader");
        for (JsonNode each : one.path("gets"))
            table.add(
                    each.path("kind").asString("") + " " + each.path("name").asString(""),
                    each.path("title").asString(""),
                    Words.state(each.path("state")),
                    String.join("; ", Words.texts(each.path("how"))),
                    each.path("messages").asString(""),
                    Words.time(each.path("lastAt")),
                    Words.time(each.path("leftAt")));
        return table;
    }
}
