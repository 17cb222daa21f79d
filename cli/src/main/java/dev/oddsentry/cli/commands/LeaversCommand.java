package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
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
        name = "leavers",
        mixinStandardHelpOptions = true,
        description = {
            "Lists the readers who stopped a rule's mails by the link in them, those who came back too.",
            "With --mail-again: one who asked for it is mailed again."
        },
        footer = {
            "",
            "Example: odd leavers late-sailings",
            "         odd leavers late-sailings --mail-again per.aune@skerryline.example"
        })
public final class LeaversCommand extends ServiceCommand {
    @Parameters(paramLabel = "RULE", description = "The rule's name.")
    @SuppressWarnings("NullAway.Init")
    String rule;

    @Option(names = "--mail-again", paramLabel = "ADDRESS", description = "Who gets the mails again.")
    @Nullable
    String mailAgain;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Override
    public Integer call() {
        String path = "/api/rules/" + Api.part(rule) + "/leavers";
        JsonNode leavers = mailAgain == null ? api().get(path) : api().delete(path + "/" + Api.part(mailAgain));
        output.print(out(), leavers, () -> table(leavers), "Nobody has stopped the mails of " + rule + ".");
        return 0;
    }

    private static Listing table(JsonNode leavers) {
        var table = new Listing(List.of("Address", "Stopped them", "Back since", "By"));
        for (JsonNode each : leavers) {
            boolean back = !each.path("returnedAt").isNull();
            table.add(List.of(
                    each.path("address").asString(""),
                    Words.time(each.path("leftAt")),
                    back ? Words.time(each.path("returnedAt")) : "",
                    back ? each.path("returnedBy").asString("the reader") : ""));
        }
        return table;
    }
}
