package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

@Command(
        name = "round-ups",
        mixinStandardHelpOptions = true,
        description = "List round-ups, their rules and next times.",
        footer = {"", "Example: odd round-ups"})
public final class RoundUpsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode roundUps = api().get("/api/round-ups");
        output.print(
                out(), roundUps, () -> table(roundUps), "No round-ups yet. Write one and save it with: odd push FILE");
        return 0;
    }

    private static Listing table(JsonNode roundUps) {
        var table = new Listing(List.of("Round-up", "Title", "Rules", "To", "When", "Sent immediately", "Next"));
        for (JsonNode each : roundUps)
            table.add(List.of(
                    each.path("name").asString(""),
                    each.path("title").asString(""),
                    String.join(", ", Words.texts(each.path("rules"))),
                    String.join(", ", Words.texts(each.path("to"))),
                    each.path("when").asString(""),
                    each.path("atOnce").asString("–"),
                    each.path("paused").asBoolean(false) ? "paused" : Words.time(each.path("nextSlot"))));
        return table;
    }
}
