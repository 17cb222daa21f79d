package dev.oddsentry.cli.admin;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.contract.UserBelongings;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

@Command(
        name = "person",
        mixinStandardHelpOptions = true,
        description = {
            "List what depends on a user (operators, auditors).",
            "Teams without others, mail, findings that they have taken, drafts, tokens."
        },
        footer = {"", "Example: odd person ines", "Hand it over with: odd hand-over --person ines per"})
public final class PersonCommand extends ServiceCommand {
    @Parameters(index = "0", paramLabel = "LOGIN", description = "Log-in name of the user.")
    @SuppressWarnings("NullAway.Init")
    String login;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        var all = api().get("/api/people/" + Api.part(login) + "/belongings", UserBelongings.class);
        output.print(out(), all, () -> table(all), "Nothing depends on " + login + ".");
        return 0;
    }

    private static Listing table(UserBelongings all) {
        var table = new Listing("What", "Name", "Detail");
        all.aloneIn().forEach(team -> table.add("team", team, "nobody else is in it"));
        all.reachedFor().forEach(team -> table.add("mail", "team " + team, "one of its addresses"));
        all.mailedBy()
                .forEach(each -> table.add(
                        "mail", each.kind() + "/" + each.name(), each.title() + (each.retired() ? ", retired" : "")));
        all.taken().forEach(each -> table.add("findings", "rule/" + each.name(), each.count() + " taken"));
        all.drafts().forEach(each -> table.add("draft", "rule/" + each.name(), "not applied"));
        if (all.tokens() > 0) table.add("tokens", String.valueOf(all.tokens()), "end when the user is disabled");
        return table;
    }
}
