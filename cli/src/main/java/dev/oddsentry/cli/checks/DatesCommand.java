package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.contract.SlotList;
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

@Command(
        name = "dates",
        mixinStandardHelpOptions = true,
        description = "List the next slots of a rule or schedule.",
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
            description = "Name of a rule, instead of a schedule given by options.")
    @Nullable
    String rule;

    @Option(names = "--recur", paramLabel = "RRULE", description = "Recurrence of RFC 5545; several make one schedule.")
    List<String> recur = List.of();

    @Option(names = "--working-day", paramLabel = "N", description = "Nth working day of each month; -1 is the last.")
    List<String> workingDay = List.of();

    @Option(names = "--also", paramLabel = "LOCAL", description = "One more local date and time.")
    List<String> also = List.of();

    @Option(names = "--except", paramLabel = "LOCAL", description = "Local date and time, or date, to skip.")
    List<String> except = List.of();

    @Option(names = "--start", paramLabel = "LOCAL", description = "Start of the recurrence. Default: today 00:00.")
    @Nullable
    String start;

    @Option(names = "--until", paramLabel = "LOCAL", description = "Last local date and time.")
    @Nullable
    String until;

    @Option(names = "--zone", paramLabel = "ZONE", defaultValue = "UTC", description = "IANA time zone. Default: UTC.")
    @SuppressWarnings("NullAway.Init")
    String zone;

    @Option(names = "--calendar", paramLabel = "NAME", description = "Calendar with the working days.")
    @Nullable
    String calendar;

    @Option(
            names = "--on-holiday",
            paramLabel = "WHAT",
            description =
                    "For slots on other days: next_working_day, previous_working_day or skip. Default: check anyway.")
    @Nullable
    String onHoliday;

    @Option(names = "--after", paramLabel = "INSTANT", description = "List slots after this time. Default: now.")
    @Nullable
    Instant after;

    @Option(names = "--count", paramLabel = "N", defaultValue = "10", description = "Number of slots. Default: 10.")
    int count;

    @Override
    public Integer call() {
        boolean written = !recur.isEmpty() || !workingDay.isEmpty() || !also.isEmpty();
        if (written == (rule != null))
            throw new ParameterException(
                    spec().commandLine(),
                    "Give a rule, or a schedule with --recur, --working-day or --also; not both.");
        SlotList dates = api().get(
                        (rule == null ? "/api/dates?" : "/api/rules/" + Api.part(rule) + "/dates?") + query(),
                        SlotList.class);
        dates.warnings().forEach(warning -> err().println("Warning: " + warning + "."));
        output.print(out(), dates, () -> table(dates), "No slots" + (after == null ? " to come." : " after that."));
        if (output.isTable()) {
            err().println("Slots of: " + dates.schedule() + " (" + dates.zone() + ").");
            if (dates.ends() && !dates.slots().isEmpty()) err().println("The schedule ends here.");
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

    private static Listing table(SlotList dates) {
        var table = new Listing(List.of("Date", "Time", "Instant"));
        for (var date : dates.slots()) {
            var local = OffsetDateTime.parse(date.local());
            table.add(List.of(DAY.format(local), TIME.format(local), String.valueOf(date.slot())));
        }
        return table;
    }
}
