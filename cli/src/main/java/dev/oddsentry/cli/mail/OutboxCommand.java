package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.Pages;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.MessageList;
import dev.oddsentry.contract.MessageSummary;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "outbox",
        mixinStandardHelpOptions = true,
        description = "List messages and their delivery state.",
        footer = {"", "Example: odd outbox --rule late-sailings"})
public final class OutboxCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Option(names = "--rule", paramLabel = "RULE", description = "Only messages of this rule.")
    @Nullable
    String rule;

    @Option(
            names = "--search",
            paramLabel = "TEXT",
            description = "Only messages with this text in the subject or an address.")
    @Nullable
    String search;

    @Option(
            names = "--state",
            paramLabel = "STATE",
            description =
                    "Only messages with a recipient in this state: queued, sending, sent, unsure, unconfirmed, rejected, expired or cancelled.")
    @Nullable
    String state;

    @Override
    public Integer call() {
        var asked = new HashMap<String, @Nullable String>();
        asked.put("rule", rule);
        asked.put("q", search);
        asked.put("state", state == null ? null : state.toUpperCase(Locale.ROOT).replace(' ', '_'));
        String path = "/api/outbox" + Api.query(asked);
        MessageList list = output.isTable()
                ? api().get(path, MessageList.class)
                : Pages.all(
                        api(),
                        path,
                        MessageList.class,
                        MessageList::messages,
                        MessageList::next,
                        (_, all) -> new MessageList(all, null));
        output.print(out(), list, () -> table(list.messages()), "No messages match.");
        if (list.next() != null)
            err().println("Only the newest " + list.messages().size()
                    + " messages are listed. All of them: --csv or --json");
        return 0;
    }

    private static Listing table(List<MessageSummary> messages) {
        var table = new Listing("Queued", "Sent by", "Subject", "Recipients");
        for (var message : messages) {
            var recipients = new ArrayList<String>();
            for (var recipient : message.recipients()) {
                recipients.add(recipient.address() + " " + Words.state(recipient.state()));
            }
            table.add(Words.time(message.createdAt()), cause(message), message.subject(), Listing.joined(recipients));
        }
        return table;
    }

    private static String cause(MessageSummary message) {
        String marks = (message.preview() ? ", preview" : "")
                + (message.repeat() ? ", resent" : "")
                + (message.held() ? ", held" : "");
        return madeBy(message) + marks;
    }

    private static String madeBy(MessageSummary message) {
        if (message.roundUp() != null) return "round-up " + message.roundUp();
        if (message.collection()) return "a recipient's collection";
        if (message.question()) return "a recipient's question";
        return Words.or(message.rule(), "failure notice");
    }
}
