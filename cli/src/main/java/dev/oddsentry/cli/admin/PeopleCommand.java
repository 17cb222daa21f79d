package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.Person;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "people",
        mixinStandardHelpOptions = true,
        description = "List the users.",
        footer = {"", "Example: odd people"})
public final class PeopleCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        List<Person> all = api().list("/api/people", Person.class);
        output.print(out(), all, () -> table(all), "No users yet.");
        return 0;
    }

    private static Listing table(List<Person> all) {
        var table = new Listing("Log-in", "Name", "Address", "Role");
        for (var each : all) table.add(each.login(), each.name(), each.email(), Words.state(each.role()));
        return table;
    }
}
