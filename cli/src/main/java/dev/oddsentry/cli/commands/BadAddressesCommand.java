package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "bad-addresses",
        mixinStandardHelpOptions = true,
        description =
                "Lists the addresses from which mail comes back, to which nothing goes. With --right: one is right again.",
        footer = {"", "Example: odd bad-addresses", "         odd bad-addresses --right per.aune@skerryline.example"})
public final class BadAddressesCommand extends ServiceCommand {
    @Option(names = "--right", paramLabel = "ADDRESS", description = "Mail goes there again.")
    @Nullable
    String right;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode bad =
                right == null ? api().get("/api/bad-addresses") : api().delete("/api/bad-addresses/" + Api.part(right));
        output.print(out(), bad, () -> table(bad), "No address is held as bad.");
        return 0;
    }

    private static Listing table(JsonNode bad) {
        var table = new Listing(List.of("Address", "Since", "The mail system said", "Message"));
        for (JsonNode each : bad)
            table.add(List.of(
                    each.path("address").asString(""),
                    Words.time(each.path("since")),
                    each.path("words").asString(""),
                    each.path("message").asString("")));
        return table;
    }
}
