package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.RecipientEntry;
import dev.oddsentry.contract.RecipientPage;
import dev.oddsentry.contract.RecipientSummary;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Parameters;

@Command(
        name = "recipients",
        mixinStandardHelpOptions = true,
        description = "List recipients, or what one gets.",
        footer = {"", "Example: odd recipients", "         odd recipients per.aune@skerryline.example"})
public final class RecipientsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(index = "0", arity = "0..1", paramLabel = "ADDRESS", description = "One address. Default: all.")
    @Nullable
    String address;

    @Override
    public Integer call() {
        if (address == null) {
            List<RecipientSummary> all = api().list("/api/recipients", RecipientSummary.class);
            output.print(out(), all, () -> everybody(all), "No recipients yet.");
            return 0;
        }
        RecipientPage one = api().get("/api/recipients/" + Api.part(address), RecipientPage.class);
        if (one.blocked() != null) err().println("Nothing is sent to this address. " + one.blocked());
        output.print(out(), one, () -> gets(one), address + " gets no messages.");
        return 0;
    }

    private static Listing everybody(List<RecipientSummary> all) {
        var table = new Listing("Address", "Rules", "Messages in 30 days", "Last", "Reached");
        for (var each : all)
            table.add(
                    each.address(),
                    String.valueOf(each.rules()),
                    String.valueOf(each.messages()),
                    Words.time(each.lastAt()),
                    each.blocked() ? "blocked" : "yes");
        return table;
    }

    private static Listing gets(RecipientPage one) {
        var table =
                new Listing("Sent by", "Title", "State", "Recipient field", "Messages in 30 days", "Last", "Chosen");
        for (var each : one.gets())
            table.add(
                    each.kind() + " " + each.name(),
                    each.title(),
                    Words.state(each.state()),
                    String.join("; ", each.how()),
                    String.valueOf(each.messages()),
                    Words.time(each.lastAt()),
                    chosen(each));
        return table;
    }

    /** What the recipient chose by the link in a message. */
    private static String chosen(RecipientEntry entry) {
        if (entry.unsubscribedAt() != null) return "unsubscribed " + Words.time(entry.unsubscribedAt());
        return entry.choice() == null ? "" : ReaderChoicesCommand.words(entry.choice());
    }
}
