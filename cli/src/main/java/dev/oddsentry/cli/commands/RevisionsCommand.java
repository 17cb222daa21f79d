package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
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
        description = "Lists what was saved of a rule, or of another definition, and goes back to it.",
        footer = {
            "",
            "Example: odd revisions late-sailings",
            "         odd revisions sailings-lately --kind query --back-to 3 --remark \"the wider window was too slow\""
        })
public final class RevisionsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(paramLabel = "NAME", description = "Name of the rule, or of the other definition.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(
            names = "--kind",
            paramLabel = "KIND",
            defaultValue = "rule",
            description = "rule (the default), query, threshold or calendar.")
    @SuppressWarnings("NullAway.Init")
    String kind;

    @Option(names = "--back-to", paramLabel = "N", description = "Saves that revision once more, as the newest.")
    @Nullable
    Integer backTo;

    @Option(names = "--remark", paramLabel = "TEXT", defaultValue = "", description = "Why; kept with the revision.")
    @SuppressWarnings("NullAway.Init")
    String remark;

    @Option(names = "--as-known", description = "What the next check finds is taken as known, not mailed.")
    boolean asKnown;

    @Override
    public Integer call() {
        String path = "/api/definitions/" + Api.part(kind) + "/" + Api.part(name) + "/revisions";
        if (backTo != null) {
            JsonNode saved = api().post(
                            path + "/" + backTo + "/restore?remark=" + Api.part(remark)
                                    + (asKnown ? "&asKnown=true" : ""),
                            null);
            err().println(
                            saved.path("changed").asBoolean(false)
                                    ? "Saved revision " + backTo + " of " + name + " once more, as revision "
                                            + saved.path("revision") + "."
                                    : name + " says what revision " + backTo + " says already.");
            PushCommand.effect(saved.path("effect").asString(""), asKnown).ifPresent(err()::println);
        }
        JsonNode all = api().get(path);
        output.print(out(), all, () -> table(all), "Nothing was saved.");
        return 0;
    }

    private static Listing table(JsonNode all) {
        var table = new Listing("Revision", "Saved", "By", "Why");
        for (JsonNode each : all)
            table.add(
                    each.path("revision").asString(""),
                    Words.time(each.path("at")),
                    each.path("author").asString(""),
                    each.path("remark").asString(""));
        return table;
    }
}
