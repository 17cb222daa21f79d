package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Listing;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "dates",
        mixinStandardHelpOptions = true,
        description =
                "Lists the next dates of a rule's schedule, or of any recurrence of RFC 5545, with or without a rule.",
        footer = {
            "",
            "Example: odd dates late-sailings --count 5",
            "         odd dates --recur \"FREQ=MONTHLY;BYDAY=-1FR\" --start 2026-01-01T05:40 --zone Europe/Oslo --except 2026-12-25"
        })
public final class DatesCommand extends ServiceCommand {
    private static final DateTimeFormatter DAY = DateTimeFormatter.ofPattern("EEE d MMM yyyy", Locale.ENGLISH);
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH:mm:ss xxx", Locale.ENGLISH);

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(
            paramLabel = "RULE",
            arity = "0..1",
            description = "Name of a rule; left out where --recur or another says it.")
    @Nullable
    String rule;

    @Option(
            names = "--recur",
            paramLabel = "RRULE",
            description = "A recurrence of RFC 5545; several make one schedule.")
    List<String> recur = List.of();

    @Option(
            names = "--working-day",
            paramLabel = "N",
            description = "The Nth working day of each month; -1 for the last.")
    List<String> workingDay = List.of();

    @Option(names = "--also", paramLabel = "LOCAL", description = "A single local date and time.")
    List<String> also = List.of();

    @Option(names = "--except", paramLabel = "LOCAL", description = "A local date and time, or a whole date, left out.")
    List<String> except = List.of();

    @Option(
            names = "--start",
            paramLabel = "LOCAL",
            description = "Where the recurrence starts; today 00:00 if left out.")
    @Nullable
    String start;

    @Option(names = "--until", paramLabel = "LOCAL", description = "The last local date and time.")
    @Nullable
    String until;

    @Option(
            names = "--zone",
            paramLabel = "ZONE",
            defaultValue = "UTC",
            description = "IANA time zone; UTC if left out.")
    @SuppressWarnings("NullAway.Init")
    String zone;

    @Option(names = "--calendar", paramLabel = "NAME", description = "The calendar that says which days are worked.")
    @Nullable
    String calendar;

    @Option(
            names = "--on-holiday",
            paramLabel = "WHAT",
            description =
                    "\"next working day\", \"previous working day\" or drop; left out, slots stay where they are.")
    @Nullable
    String onHoliday;

    @Option(names = "--after", paramLabel = "INSTANT", description = "Dates after this instant; now if left out.")
    @Nullable
    Instant after;

    @Option(names = "--count", paramLabel = "N", defaultValue = "10", description = "How many; ten if left out.")
    int count;

    @Override
    public Integer call() {
        boolean written = !recur.isEmpty() || !workingDay.isEmpty() || !also.isEmpty();
        if (written == (rule != null))
            throw new ParameterException(
                    spec().commandLine(),
                    "Give a rule, or a schedule with --recur, --working-day or --also; not both.");
        JsonNode dates =
                api().get((rule == null ? "/api/dates?" : "/api/rules/" + Api.part(rule) + "/dates?") + query());
        dates.path("warnings").forEach(warning -> err().println("Warning: " + warning.asString("") + "."));
        output.print(
                out(), dates, () -> table(dates), "There is no date" + (after == null ? " to come." : " after that."));
        if (output.isTable()) {
            err().println("These are the dates of: " + dates.path("words").asString("") + " ("
                    + dates.path("zone").asString("") + ").");
            if (dates.path("ends").asBoolean(false) && !dates.path("dates").isEmpty())
                err().println("There is none after these.");
        }
        return 0;
    }

    private String query() {
        var asked = new ArrayList<String>();
        asked.add("count=" + count);
        if (after != null) asked.add("after=" + Api.part(after.toString()));
        if (rule != null) return String.join("&", asked);
        recur.forEach(each -> asked.add("recur=" + Api.part(each)));
        workingDay.forEach(each -> asked.add("workingDay=" + Api.part(each)));
        also.forEach(each -> asked.add("also=" + Api.part(each)));
        except.forEach(each -> asked.add("except=" + Api.part(each)));
        add(asked, "start", start);
        add(asked, "until", until);
        add(asked, "zone", zone);
        add(asked, "calendar", calendar);
        add(asked, "onHoliday", onHoliday);
        return String.join("&", asked);
    }

    private static void add(List<String> asked, String name, @Nullable String value) {
        if (value != null) asked.add(name + "=" + Api.part(value));
    }

    private static Listing table(JsonNode dates) {
        var table = new Listing(List.of("Date", "Time", "Instant"));
        for (JsonNode date : dates.path("dates")) {
            var local = OffsetDateTime.parse(date.path("local").asString(""));
            table.add(List.of(
                    DAY.format(local), TIME.format(local), date.path("slot").asString("")));
        }
        return table;
    }
}
