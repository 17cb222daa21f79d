package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.NotReachedException;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.MessageActionResult;
import dev.oddsentry.contract.MessagePage;
import dev.oddsentry.contract.MessageSummary;
import dev.oddsentry.contract.ReportView;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "message",
        mixinStandardHelpOptions = true,
        description = "Show a message; cancel, resend or report again.",
        footer = {
            "",
            "Example: odd message 4c1d8a52-7c0e-4a53-9d0c-0d4f5a2b6c11",
            "         odd message 4c1d8a52-7c0e-4a53-9d0c-0d4f5a2b6c11 --resend --to per.aune@skerryline.example"
        })
public final class MessageCommand extends ServiceCommand {
    @Parameters(paramLabel = "MESSAGE", description = "Number of the message, from odd outbox --json.")
    @SuppressWarnings("NullAway.Init")
    String id;

    /** One thing at a time. */
    static final class Act {
        @Option(names = "--cancel", description = "Cancel delivery to recipients still queued.")
        boolean cancel;

        @Option(names = "--resend", description = "Send it again.")
        boolean sendAgain;

        @Option(names = "--report-again", description = "Report its findings again at the next check.")
        boolean reportAgain;

        @Option(names = "--arrived", description = "Confirm that an unconfirmed message has arrived.")
        boolean arrived;

        @Option(names = "--out", paramLabel = "FILE", description = "Save its source (RFC 5322).")
        @Nullable
        Path out;

        @Option(
                names = "--files",
                paramLabel = "FOLDER",
                description = "Save its attachments in this folder, also those that were only linked.")
        @Nullable
        Path files;
    }

    @ArgGroup
    @Nullable
    Act act;

    @Option(
            names = "--to",
            paramLabel = "ADDRESS",
            description = "With --resend: only to this address; may be repeated.")
    @Nullable
    List<String> to;

    @Override
    public Integer call() {
        String path = "/api/outbox/" + Api.part(id);
        if (act == null) return show(path);
        if (act.out != null) {
            api().download(path + "/source", act.out);
            out().println("Saved the message to " + act.out + ".");
        } else if (act.files != null) {
            saveFiles(act.files);
        } else if (act.cancel) {
            int count = count(path + "/cancel");
            out().println("Delivery cancelled for " + (count == 1 ? "1 recipient" : count + " recipients")
                    + ". The findings stay reported.");
        } else if (act.arrived) {
            int count = count(path + "/confirm");
            out().println("Confirmed for " + (count == 1 ? "1 recipient" : count + " recipients") + ".");
        } else if (act.sendAgain) {
            MessageActionResult sent =
                    api().post(path + "/resend", Map.of("to", to == null ? List.of() : to), MessageActionResult.class);
            out().println("Resent as message " + Words.or(sent.message(), "") + ".");
        } else {
            int count = count(path + "/report-again");
            out().println("The next check reports " + (count == 1 ? "1 finding" : count + " findings") + " again.");
        }
        return 0;
    }

    private int count(String path) {
        return api().post(path, null, MessageActionResult.class).count();
    }

    private void saveFiles(Path folder) {
        String path = "/api/extracts/" + Api.part(id);
        var files = api().get(path, ReportView.class).files();
        if (files.isEmpty()) out().println("The message has no attachments.");
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new NotReachedException("The folder " + folder + " could not be made: " + e.getMessage());
        }
        for (int place = 0; place < files.size(); place++) {
            // Its name is one that a service made; a path in it would lead out of the folder.
            String name = Path.of(files.get(place).name()).getFileName().toString();
            Path file = folder.resolve(name);
            api().download(path + "/files/" + place, file);
            out().println("Saved " + file + ".");
        }
    }

    private Integer show(String path) {
        MessagePage page = api().get(path, MessagePage.class);
        MessageSummary message = page.message();
        out().println("Subject: " + message.subject());
        out().println("Queued: " + Words.time(message.createdAt()) + (message.held() ? ", held" : ""));
        for (var recipient : message.recipients())
            out().println("To: " + recipient.address() + ", " + Words.state(recipient.state())
                    + Words.or(recipient.detail(), "").transform(words -> words.isEmpty() ? "" : ": " + words));
        for (var file : page.files()) out().println("File: " + file.name());
        if (page.reported().total() > 0)
            out().println("Reported: " + Words.count(page.reported().total(), "finding"));
        out().println();
        out().println(page.text().stripTrailing());
        return 0;
    }
}
