package dev.oddsentry.cli.checks;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.Saved;
import java.nio.file.Path;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "import-calendar",
        mixinStandardHelpOptions = true,
        description = {
            "Add holidays from an iCalendar file.",
            "Existing holidays are kept. Yearly events are added for five years."
        },
        footer = {"", "Example: odd import-calendar norway holidays.ics"})
public final class ImportCalendarCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "NAME", description = "Name of the calendar.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1", paramLabel = "FILE", description = "The file, UTF-8.")
    @SuppressWarnings("NullAway.Init")
    Path file;

    @Option(
            names = "--reason",
            paramLabel = "TEXT",
            defaultValue = "holidays from an iCalendar file",
            description = "Reason, stored with the revision.")
    @SuppressWarnings("NullAway.Init")
    String reason;

    @Override
    public Integer call() {
        Saved saved = api().postText(
                        "/api/calendars/" + Api.part(name) + "/holidays.ics?reason=" + Api.part(reason),
                        read(file),
                        "text/calendar",
                        Saved.class);
        out().println(
                        saved.changed()
                                ? "Saved calendar " + name + " as revision " + saved.revision() + "."
                                : "calendar " + name + " is unchanged at revision " + saved.revision() + ".");
        return 0;
    }
}
