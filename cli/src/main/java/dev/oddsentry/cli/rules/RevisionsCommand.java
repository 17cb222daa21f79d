package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.RevisionList;
import dev.oddsentry.contract.RevisionView;
import dev.oddsentry.contract.Saved;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "revisions",
        mixinStandardHelpOptions = true,
        description = "List revisions of a definition, or restore one.",
        footer = {
            "",
            "Example: odd revisions late-sailings",
            "         odd revisions sailings-lately --kind query --back-to 3 --reason \"the wider window was too slow\""
        })
public final class RevisionsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(paramLabel = "NAME", description = "Name of the definition.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(
            names = "--kind",
            paramLabel = "KIND",
            defaultValue = "rule",
            description = "rule (default), query, threshold, calendar, layout, recipient-list or round-up.")
    @SuppressWarnings("NullAway.Init")
    String kind;

    @Option(names = "--back-to", paramLabel = "N", description = "Restore this revision, as a new one.")
    @Nullable
    Integer backTo;

    @Option(
            names = "--reason",
            paramLabel = "TEXT",
            defaultValue = "",
            description = "Reason, stored with the revision.")
    @SuppressWarnings("NullAway.Init")
    String reason;

    @Option(names = "--treat-as-known", description = "Treat what the next check finds as known; it is not reported.")
    boolean treatAsKnown;

    @Override
    public Integer call() {
        String path = "/api/definitions/" + Api.part(kind) + "/" + Api.part(name) + "/revisions";
        if (backTo != null) {
            Saved saved = api().post(
                            path + "/" + backTo + "/restore?reason=" + Api.part(reason)
                                    + (treatAsKnown ? "&treatAsKnown=true" : ""),
                            null,
                            Saved.class);
            err().println(
                            saved.changed()
                                    ? "Restored revision " + backTo + " of " + name + " as revision " + saved.revision()
                                            + "."
                                    : name + " is already the same as revision " + backTo + ".");
            PushCommand.effect(saved.effect(), treatAsKnown).ifPresent(err()::println);
        }
        List<RevisionView> all = Pages.all(
                        api(),
                        path,
                        RevisionList.class,
                        RevisionList::revisions,
                        RevisionList::next,
                        (_, revisions) -> new RevisionList(null, revisions))
                .revisions();
        output.print(out(), all, () -> table(all), "No revisions.");
        return 0;
    }

    private static Listing table(List<RevisionView> all) {
        var table = new Listing("Revision", "Saved", "By", "Reason");
        for (var each : all)
            table.add(
                    String.valueOf(each.revision()), Words.time(each.at()), Words.or(each.author(), ""), each.reason());
        return table;
    }
}
