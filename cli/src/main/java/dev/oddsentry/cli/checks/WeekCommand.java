package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.WeekView;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "week",
        mixinStandardHelpOptions = true,
        description = "Show how many checks each hour of a week has.",
        footer = {"", "Example: odd week --first 2026-11-23"})
public final class WeekCommand extends ServiceCommand {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEE d MMM", Locale.ENGLISH);
    private static final DateTimeFormatter HOUR = DateTimeFormatter.ofPattern("HH:00", Locale.ENGLISH);
    private static final int DAYS = 7;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(
            names = "--first",
            paramLabel = "DATE",
            description = "First of the seven days. Default: Monday of this week.")
    @Nullable
    LocalDate first;

    @Option(names = "--zone", paramLabel = "ZONE", description = "Zone of days and hours. Default: this machine's.")
    ZoneId zone = ZoneId.systemDefault();

    @Override
    public Integer call() {
        var monday =
                first == null ? LocalDate.now(zone).with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY)) : first;
        var asked = new LinkedHashMap<String, @Nullable String>();
        asked.put("first", monday.toString());
        asked.put("zone", zone.getId());
        var week = api().get("/api/week" + Api.query(asked), WeekView.class);
        output.print(out(), week, () -> table(week, monday), "No checks.");
        if (output.isTable()) {
            int checks = week.hours().stream().mapToInt(hour -> hour.checks()).sum();
            out().println(Words.count(checks, "check") + " (" + zone.getId() + ")");
        }
        return 0;
    }

    /** Hours of the clock without any check have no line. */
    private Listing table(WeekView week, LocalDate monday) {
        var headings = new ArrayList<>(List.of("Hour"));
        for (int day = 0; day < DAYS; day++) headings.add(DAY.format(monday.plusDays(day)));
        var byHour = new TreeMap<String, int[]>();
        for (var hour : week.hours()) {
            var at = hour.from().atZone(zone);
            int day = (int) (at.toLocalDate().toEpochDay() - monday.toEpochDay());
            if (hour.checks() > 0) byHour.computeIfAbsent(HOUR.format(at), _ -> new int[DAYS])[day] += hour.checks();
        }
        var table = new Listing(headings);
        byHour.forEach((hour, checks) -> {
            var cells = new ArrayList<>(List.of(hour));
            for (int each : checks) cells.add(each == 0 ? "–" : String.valueOf(each));
            table.add(cells);
        });
        return table;
    }
}
