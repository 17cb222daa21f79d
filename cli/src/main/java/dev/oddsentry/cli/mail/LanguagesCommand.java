package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.RecipientLanguage;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "languages",
        mixinStandardHelpOptions = true,
        description = {"List or set recipients' languages.", "Other recipients read the language of each rule."},
        footer = {
            "",
            "Example: odd languages",
            "         odd languages --set jens.brandt@skerryline.example --language de",
            "         odd languages --set jens.brandt@skerryline.example --language rule"
        })
public final class LanguagesCommand extends ServiceCommand {
    private static final String OF_THE_RULE = "rule";

    static final class Setting {
        @Option(names = "--set", required = true, paramLabel = "ADDRESS", description = "Address of the recipient.")
        @SuppressWarnings("NullAway.Init")
        String address;

        @Option(
                names = "--language",
                required = true,
                paramLabel = "LANGUAGE",
                description = "en, de or nb; rule: the language of each rule.")
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
        List<RecipientLanguage> languages =
                setting == null ? api().list("/api/languages", RecipientLanguage.class) : set(setting);
        output.print(out(), languages, () -> table(languages), "No recipient has a language of their own.");
        return 0;
    }

    private List<RecipientLanguage> set(Setting wanted) {
        String language = wanted.language.equals(OF_THE_RULE) ? null : wanted.language;
        return api().putForList(
                        "/api/languages/" + Api.part(wanted.address),
                        Collections.singletonMap("language", language),
                        RecipientLanguage.class);
    }

    private static Listing table(List<RecipientLanguage> languages) {
        var table = new Listing(List.of("Address", "Language", "Set by", "Since"));
        for (var each : languages)
            table.add(List.of(each.address(), Words.state(each.language()), each.by(), Words.time(each.at())));
        return table;
    }
}
