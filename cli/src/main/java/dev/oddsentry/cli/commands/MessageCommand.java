package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.NotReachedException;
import dev.oddsentry.cli.output.Words;
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
import tools.jackson.databind.JsonNode;

@Command(
        name = "message",
        mixinStandardHelpOptions = true,
        description = {
            "Shows a message of the outbox: its text, and where each recipient stands with the server's words.",
            "With --stop: nobody who waits gets it any more. With --send-again: the same mail once more, marked as a repeat.",
            "With --report-again: what it reported is news again at the next check. With --arrived: an unconfirmed message is settled."
        },
        footer = {
            "",
            "Example: odd message 4c1d8a52-7c0e-4a53-9d0c-0d4f5a2b6c11",
            "         odd message 4c1d8a52-7c0e-4a53-9d0c-0d4f5a2b6c11 --send-again --to per.aune@skerryline.example"
        })
public final class MessageCommand extends ServiceCommand {
    @Parameters(paramLabel = "MESSAGE", description = "Its number, as odd outbox --json has it.")
    @SuppressWarnings("NullAway.Init")
    String id;

    /** One thing at a time. */
    static final class Act {
        @Option(names = "--stop", description = "Stops it for those who wait.")
        boolean stop;

        @Option(names = "--send-again", description = "Sends it once more.")
        boolean sendAgain;

        @Option(names = "--report-again", description = "Takes back what it reported.")
        boolean reportAgain;

        @Option(names = "--arrived", description = "Notes that it arrived where nobody could tell.")
        boolean arrived;

        @Option(names = "--out", paramLabel = "FILE", description = "Its source as a file (RFC 5322).")
        @Nullable
        Path out;

        @Option(
                names = "--files",
                paramLabel = "FOLDER",
                description = "Saves its files there, also those that stayed behind the link.")
        @Nullable
        Path files;
    }

    @ArgGroup
    @Nullable
    Act act;

    @Option(names = "--to", paramLabel = "ADDRESS", description = "With --send-again: only to these; may be repeated.")
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
        } else if (act.stop) {
            int count = api().post(path + "/stop", null).path("count").asInt(0);
            out().println("Stopped for " + (count == 1 ? "1 recipient" : count + " recipients")
                    + "; what it reported stays reported.");
        } else if (act.arrived) {
            int count = api().post(path + "/arrived", null).path("count").asInt(0);
            out().println("Noted for " + (count == 1 ? "1 recipient" : count + " recipients") + ".");
        } else if (act.sendAgain) {
            JsonNode sent = api().post(path + "/send-again", Map.of("to", to == null ? List.of() : to));
            out().println("Sent again, as message " + sent.path("message").asString("") + ".");
        } else {
            int count = api().post(path + "/report-again", null).path("count").asInt(0);
            out().println("The next check says " + (count == 1 ? "1 finding" : count + " findings") + " again.");
        }
        return 0;
    }

    private void saveFiles(Path folder) {
        String path = "/api/extracts/" + Api.part(id);
        JsonNode files = api().get(path).path("files");
        if (files.isEmpty()) out().println("It has no files.");
        try {
            Files.createDirectories(folder);
        } catch (IOException e) {
            throw new NotReachedException("The folder " + folder + " could not be made: " + e.getMessage());
        }
        for (int place = 0; place < files.size(); place++) {
            // Its name is one that a service made; a path in it would lead out of the folder.
            String name = Path.of(files.path(place).path("name").asString("file"))
                    .getFileName()
                    .toString();
            Path file = folder.resolve(name);
            api().download(path + "/files/" + place, file);
            out().println("Saved " + file + ".");
        }
    }

    private Integer show(String path) {
        JsonNode page = api().get(path);
        JsonNode message = page.path("message");
        out().println("Subject: " + message.path("subject").asString(""));
        out().println("Queued: " + Words.time(message.path("createdAt"))
                + (message.path("held").asBoolean(false) ? ", held" : ""));
        for (JsonNode recipient : message.path("recipients"))
            out().println("To: " + recipient.path("address").asString("") + ", " + Words.state(recipient.path("state"))
                    + recipient.path("words").asString("").transform(words -> words.isEmpty() ? "" : ": " + words));
        for (String file : Words.texts(page.path("attachments"))) out().println("Attached: " + file);
        out().println();
        out().println(page.path("text").asString("").stripTrailing());
        return 0;
    }
}
