package dev.oddsentry.cli.start;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.TokenView;
import java.util.List;
import java.util.Locale;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "tokens",
        mixinStandardHelpOptions = true,
        description = "List your tokens.",
        footer = {"", "Example: odd tokens"})
public final class TokensCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(names = "--everybody", description = "The tokens of all users (operators and auditors).")
    boolean everybody;

    @Override
    public Integer call() {
        List<TokenView> all = api().list("/api/tokens" + (everybody ? "?everybody=true" : ""), TokenView.class);
        output.print(out(), all, () -> table(all), "No tokens. To create one: odd create-token NAME");
        return 0;
    }

    private static Listing table(List<TokenView> all) {
        var table = new Listing("Name", "User", "For", "Expires", "Last used", "Id");
        for (var each : all)
            table.add(
                    each.name(),
                    each.login(),
                    each.scope().toLowerCase(Locale.ROOT),
                    Words.time(each.expiresAt()),
                    each.lastUsedAt() == null ? "never" : Words.time(each.lastUsedAt()),
                    each.id().toString());
        return table;
    }
}
