package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "thresholds",
        mixinStandardHelpOptions = true,
        description = "List thresholds, their values and changes.",
        footer = {
            "",
            "Example: odd thresholds",
            "         odd thresholds poor_load",
            "         odd thresholds poor_load --changes"
        })
public final class ThresholdsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(arity = "0..1", paramLabel = "THRESHOLD", description = "One threshold, to list its values.")
    @Nullable
    String name;

    @Option(names = "--changes", description = "List its changes: who, when and why.")
    boolean changes;

    @Override
    public Integer call() {
        if (name == null) {
            JsonNode all = api().get("/api/thresholds");
            output.print(out(), all, () -> listing(all), "No thresholds yet.");
            return 0;
        }
        JsonNode page = api().get("/api/thresholds/" + Api.part(name));
        output.print(
                out(),
                page,
                () -> changes ? changes(page) : values(page),
                "The threshold " + name + " has no value yet.");
        return 0;
    }

    private static Listing listing(JsonNode all) {
        var table = new Listing("Threshold", "Title", "Now", "Unit", "Key columns", "Values", "Planned", "Used by");
        for (JsonNode each : all) {
            table.add(
                    each.path("name").asString(""),
                    each.path("title").asString(""),
                    each.path("number").isNumber() ? each.path("number").asString("") : "–",
                    each.path("unit").asString(""),
                    Listing.joined(Words.texts(each.path("key"))),
                    each.path("values").asString(""),
                    each.path("planned").asString(""),
                    Listing.joined(Words.texts(each.path("rules"))));
        }
        return table;
    }

    private static Listing values(JsonNode page) {
        var table = new Listing("For", "From", "Value", "");
        for (JsonNode value : page.path("values")) {
            table.add(
                    forWhom(value),
                    value.path("from").asString("always"),
                    value.path("number").asString(""),
                    Words.state(value.path("when")));
        }
        return table;
    }

    private static Listing changes(JsonNode page) {
        var table = new Listing("When", "Who", "For", "From", "Value", "Reason");
        for (JsonNode given : page.path("history")) {
            table.add(List.of(
                    Words.time(given.path("setAt")),
                    given.path("setBy").asString(""),
                    forWhom(given),
                    given.path("from").asString("always"),
                    given.path("number").isNumber() ? given.path("number").asString("") : "removed",
                    given.path("reason").asString("")));
        }
        return table;
    }

    private static String forWhom(JsonNode value) {
        var key = Words.texts(value.path("key"));
        return key.isEmpty() ? "default" : String.join(", ", key);
    }
}
