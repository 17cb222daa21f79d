package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

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
            description = "rule (default), query, threshold, calendar, layout or round-up.")
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
            JsonNode saved = api().post(
                            path + "/" + backTo + "/restore?reason=" + Api.part(reason)
                                    + (treatAsKnown ? "&treatAsKnown=true" : ""),
                            null);
            err().println(
                            saved.path("changed").asBoolean(false)
                                    ? "Restored revision " + backTo + " of " + name + " as revision "
                                            + saved.path("revision") + "."
                                    : name + " is already the same as revision " + backTo + ".");
            PushCommand.effect(saved.path("effect").asString(""), treatAsKnown).ifPresent(err()::println);
        }
        JsonNode all = Pages.all(api(), path, "revisions").path("revisions");
        output.print(out(), all, () -> table(all), "No revisions.");
        return 0;
    }

    private static Listing table(JsonNode all) {
        var table = new Listing("Revision", "Saved", "By", "Reason");
        for (JsonNode each : all)
            table.add(
                    each.path("revision").asString(""),
                    Words.time(each.path("at")),
                    each.path("author").asString(""),
                    each.path("reason").asString(""));
        return table;
    }
}
