package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.CalendarView;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

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
        List<CalendarView> calendars = api().list("/api/calendars", CalendarView.class);
        output.print(out(), calendars, () -> table(calendars), "No calendars yet. Working days are Monday to Friday.");
        return 0;
    }

    private static Listing table(List<CalendarView> calendars) {
        var table = new Listing(List.of("Calendar", "Title", "Holidays", "Known until", "Rules"));
        for (var calendar : calendars)
            table.add(List.of(
                    calendar.name(),
                    calendar.title(),
                    String.valueOf(calendar.holidays().size()),
                    Words.or(calendar.knownUntil(), "–"),
                    String.join(", ", calendar.rules())));
        return table;
    }
}
