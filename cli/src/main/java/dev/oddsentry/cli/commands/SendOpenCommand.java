package dev.oddsentry.cli.commands;

import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "send-open",
        mixinStandardHelpOptions = true,
        description = {
            "Mails one of those who hear of a rule everything of theirs that is open now, as to a person who was added.",
            "Nobody else gets it, and what was reported to whom stays as it is."
        },
        footer = {"", "Example: odd send-open late-sailings siv.tangen@skerryline.example"})
public final class SendOpenCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Parameters(index = "1", paramLabel = "ADDRESS", description = "One of the rule's recipients.")
    @SuppressWarnings("NullAway.Init")
    String address;

    @Override
    public Integer call() {
        JsonNode sent = api().post(rule.path("/send-open"), Map.of("to", address));
        int messages = sent.path("messages").asInt(0);
        out().println("What is open of " + rule.name() + " goes to " + address
                + (messages == 1 ? "." : " in " + messages + " mails."));
        return 0;
    }
}
