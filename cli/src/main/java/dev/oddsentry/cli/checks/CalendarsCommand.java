package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import tools.jackson.databind.JsonNode;

@Command(
        name = "calendars",
        mixinStandardHelpOptions = true,
        description = "List calendars, last known holiday and rules.",
        footer = {"", "Example: odd calendars"})
public final class CalendarsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode calendars = api().get("/api/calendars");
        output.print(out(), calendars, () -> table(calendars), "No calendars yet. Working days are Monday to Friday.");
        return 0;
    }

    private static Listing table(JsonNode calendars) {
        var table = new Listing(List.of("Calendar", "Title", "Holidays", "Known until", "Rules"));
        for (JsonNode calendar : calendars)
            table.add(List.of(
                    calendar.path("name").asString(""),
                    calendar.path("title").asString(""),
                    String.valueOf(calendar.path("holidays").size()),
                    calendar.path("knownUntil").asString("–"),
                    String.join(", ", Words.texts(calendar.path("rules")))));
        return table;
    }
}
