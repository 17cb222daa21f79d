package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "reader-languages",
        mixinStandardHelpOptions = true,
        description = {
            "Lists the readers who want their mail in a language of their own; others read in that of each rule.",
            "With --set: sets it, for yourself or, as an operator, for anybody."
        },
        footer = {
            "",
            "Example: odd reader-languages",
            "         odd reader-languages --set jens.brandt@skerryline.example --language de",
            "         odd reader-languages --set jens.brandt@skerryline.example --language rule"
        })
public final class ReaderLanguagesCommand extends ServiceCommand {
    private static final String OF_THE_RULE = "rule";

    static final class Setting {
        @Option(names = "--set", required = true, paramLabel = "ADDRESS", description = "The reader's address.")
        @SuppressWarnings("NullAway.Init")
        String address;

        @Option(
                names = "--language",
                required = true,
                paramLabel = "LANGUAGE",
                description = "en, de or nb; rule for that of each rule.")
        @SuppressWarnings("NullAway.Init")
        String language;
    }

    @ArgGroup(exclusive = false)
    @Nullable
    Setting setting;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        JsonNode languages = setting == null ? api().get("/api/reader-languages") : set(setting);
        output.print(out(), languages, () -> table(languages), "Everybody reads in the language of each rule.");
        return 0;
    }

    private JsonNode set(Setting wanted) {
        String language = wanted.language.equals(OF_THE_RULE) ? null : wanted.language;
        return api().put(
                        "/api/reader-languages/" + Api.part(wanted.address),
                        Collections.singletonMap("language", language));
    }

    private static Listing table(JsonNode languages) {
        var table = new Listing(List.of("Address", "Language", "Set by", "Since"));
        for (JsonNode each : languages)
            table.add(List.of(
                    each.path("address").asString(""),
                    Words.state(each.path("language")),
                    each.path("by").asString(""),
                    Words.time(each.path("at"))));
        return table;
    }
}
