package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.UnsubscribedRecipient;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "unsubscribed",
        mixinStandardHelpOptions = true,
        description = "List who unsubscribed; resubscribe one.",
        footer = {
            "",
            "Example: odd unsubscribed late-sailings",
            "         odd unsubscribed late-sailings --resubscribe per.aune@skerryline.example"
        })
public final class UnsubscribedCommand extends ServiceCommand {
    @Parameters(paramLabel = "NAME", description = "Name of the rule, or of the round-up.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Option(names = "--round-up", description = "The name is that of a round-up.")
    boolean ofRoundUp;

    @Option(names = "--resubscribe", paramLabel = "ADDRESS", description = "Resubscribe this address.")
    @Nullable
    String mailAgain;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        String path = (ofRoundUp ? "/api/round-ups/" : "/api/rules/") + Api.part(name) + "/unsubscribed";
        List<UnsubscribedRecipient> leavers = mailAgain == null
                ? api().list(path, UnsubscribedRecipient.class)
                : api().deleteForList(path + "/" + Api.part(mailAgain), UnsubscribedRecipient.class);
        output.print(out(), leavers, () -> table(leavers), "Nobody has unsubscribed from " + name + ".");
        return 0;
    }

    private static Listing table(List<UnsubscribedRecipient> leavers) {
        var table = new Listing(List.of("Address", "Unsubscribed", "Resubscribed", "By"));
        for (var each : leavers) {
            boolean back = each.resubscribedAt() != null;
            table.add(List.of(
                    each.address(),
                    Words.time(each.unsubscribedAt()),
                    back ? Words.time(each.resubscribedAt()) : "",
                    back ? Words.or(each.resubscribedBy(), "the recipient") : ""));
        }
        return table;
    }
}
