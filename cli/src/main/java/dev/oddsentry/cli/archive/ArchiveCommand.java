package dev.oddsentry.cli.archive;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.RetiredDefinition;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "archive",
        mixinStandardHelpOptions = true,
        description = "List the definitions that were retired.",
        footer = {"", "Example: odd archive"})
public final class ArchiveCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        List<RetiredDefinition> all = api().list("/api/archive", RetiredDefinition.class);
        output.print(out(), all, () -> table(all), "Nothing was retired.");
        return 0;
    }

    private static Listing table(List<RetiredDefinition> all) {
        var table = new Listing("Definition", "Title", "Owner", "Retired", "By", "Reason");
        for (var each : all)
            table.add(
                    each.kind() + "/" + each.name(),
                    each.title(),
                    each.owner() == null ? "" : each.owner(),
                    Words.time(each.at()),
                    each.by(),
                    each.reason());
        return table;
    }
}
