package dev.oddsentry.cli.mail;

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
        name = "unsubscribed",
        mixinStandardHelpOptions = true,
        description = "List who unsubscribed; resubscribe one.",
        footer = {
            "",
            "Example: odd unsubscribed late-sailings",
            "         odd unsubscribed late-sailings --resubscribe per.aune@skerryline.example"
        })
public final class UnsubscribedCommand extends ServiceCommand {
    @Parameters(paramLabel = "RULE", description = "Name of the rule.")
    @SuppressWarnings("NullAway.Init")
    String rule;

    @Option(names = "--resubscribe", paramLabel = "ADDRESS", description = "Resubscribe this address.")
    @Nullable
    String mailAgain;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        String path = "/api/rules/" + Api.part(rule) + "/unsubscribed";
        JsonNode leavers = mailAgain == null ? api().get(path) : api().delete(path + "/" + Api.part(mailAgain));
        output.print(out(), leavers, () -> table(leavers), "Nobody has unsubscribed from " + rule + ".");
        return 0;
    }

    private static Listing table(JsonNode leavers) {
        var table = new Listing(List.of("Address", "Unsubscribed", "Resubscribed", "By"));
        for (JsonNode each : leavers) {
            boolean back = !each.path("resubscribedAt").isNull();
            table.add(List.of(
                    each.path("address").asString(""),
                    Words.time(each.path("unsubscribedAt")),
                    back ? Words.time(each.path("resubscribedAt")) : "",
                    back ? each.path("resubscribedBy").asString("the recipient") : ""));
        }
        return table;
    }
}
