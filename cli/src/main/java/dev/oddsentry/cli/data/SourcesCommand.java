package dev.oddsentry.cli.data;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.SourceView;
import java.util.List;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;

@Command(
        name = "sources",
        mixinStandardHelpOptions = true,
        description = "List the sources.",
        footer = {"", "Example: odd sources"})
public final class SourcesCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        List<SourceView> sources = api().list("/api/sources", SourceView.class);
        output.print(
                out(),
                sources,
                () -> table(sources),
                "No source that you may use. An operator adds one, or lets your team use it, with: odd save-source");
        return 0;
    }

    private static Listing table(List<SourceView> sources) {
        var table =
                new Listing("Source", "Address", "User", "Max rows", "Time limit s", "Connections", "Closed", "Teams");
        for (var source : sources) {
            table.add(
                    source.name(),
                    source.jdbcUrl(),
                    source.username(),
                    String.valueOf(source.maxRows()),
                    String.valueOf(source.timeLimitSeconds()),
                    String.valueOf(source.maxConnections()),
                    Words.or(source.closed(), ""),
                    source.teams().isEmpty() ? "all" : String.join(", ", source.teams()));
        }
        return table;
    }
}
