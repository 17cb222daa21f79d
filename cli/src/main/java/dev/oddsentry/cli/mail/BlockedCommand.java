package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.BlockedAddress;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "blocked",
        mixinStandardHelpOptions = true,
        description = "List blocked addresses; unblock one.",
        footer = {"", "Example: odd blocked", "         odd blocked --unblock per.aune@skerryline.example"})
public final class BlockedCommand extends ServiceCommand {
    @Option(
            names = "--unblock",
            paramLabel = "ADDRESS",
            description = "Unblock this address, so that messages are sent to it again.")
    @Nullable
    String right;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        List<BlockedAddress> bad = right == null
                ? api().list("/api/blocked-addresses", BlockedAddress.class)
                : api().deleteForList("/api/blocked-addresses/" + Api.part(right), BlockedAddress.class);
        output.print(out(), bad, () -> table(bad), "No blocked addresses.");
        return 0;
    }

    private static Listing table(List<BlockedAddress> bad) {
        var table = new Listing(List.of("Address", "Since", "Mail server reply", "Message"));
        for (var each : bad)
            table.add(List.of(each.address(), Words.time(each.since()), each.reason(), String.valueOf(each.message())));
        return table;
    }
}
