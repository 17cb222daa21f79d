package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.QueuedMessages;
import java.util.Map;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

@Command(
        name = "send-open",
        mixinStandardHelpOptions = true,
        description = {
            "Send one recipient a rule's open findings.",
            "Nobody else gets the message, and last reports do not change."
        },
        footer = {"", "Example: odd send-open late-sailings siv.tangen@skerryline.example"})
public final class SendOpenCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Parameters(index = "1", paramLabel = "ADDRESS", description = "A recipient of the rule.")
    @SuppressWarnings("NullAway.Init")
    String address;

    @Override
    public Integer call() {
        QueuedMessages sent = api().post(rule.path("/send-open"), Map.of("to", address), QueuedMessages.class);
        int messages = sent.messages();
        out().println("The open findings of " + rule.name() + " are sent to " + address
                + (messages == 1 ? "." : " in " + messages + " messages."));
        return 0;
    }
}
