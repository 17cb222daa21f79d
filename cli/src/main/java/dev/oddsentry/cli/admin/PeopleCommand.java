package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.UserView;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "people",
        mixinStandardHelpOptions = true,
        description = "List the users.",
        footer = {"", "Example: odd people"})
public final class PeopleCommand extends ServiceCommand {
    @Option(names = "--all", description = "Also users who have been disabled.")
    boolean all;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        List<UserView> users = api().list("/api/people" + (all ? "?disabled=true" : ""), UserView.class);
        output.print(out(), users, () -> table(users), "No users yet.");
        return 0;
    }

    private static Listing table(List<UserView> users) {
        var table = new Listing("Log-in", "Name", "Address", "Role", "Teams", "Last log-in");
        for (var each : users)
            table.add(
                    each.login(),
                    each.name(),
                    each.email(),
                    Words.state(each.role())
                            + (each.service() ? ", service account" : "")
                            + (each.active() ? "" : ", disabled"),
                    String.join(", ", each.teams()),
                    lastLogIn(each));
        return table;
    }

    private static String lastLogIn(UserView user) {
        if (user.lastLogInAt() != null) return Words.time(user.lastLogInAt());
        return user.invited() ? "invited" : "–";
    }
}
