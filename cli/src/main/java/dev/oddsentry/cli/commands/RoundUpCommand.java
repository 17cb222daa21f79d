package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.output.Words;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import tools.jackson.databind.JsonNode;

@Command(
        name = "round-up",
        mixinStandardHelpOptions = true,
        description = {
            "Shows what a round-up would say now. Nothing is sent or remembered.",
            "With --out: as a message (RFC 5322). With --send: says it now, whatever its times. With --pause and --resume: is silent, and goes on."
        },
        footer = {"", "Example: odd round-up terminals-week", "         odd round-up terminals-week --out week.eml"})
public final class RoundUpCommand extends ServiceCommand {
    @Parameters(paramLabel = "ROUND-UP", description = "The round-up's name.")
    @SuppressWarnings("NullAway.Init")
    String name;

    /** One thing at a time. */
    static final class Act {
        @Option(names = "--out", paramLabel = "FILE", description = "A file for the message; replaced if it is there.")
        @Nullable
        Path out;

        @Option(names = "--send", description = "Says it now, to all who hear of it.")
        boolean send;

        @Option(names = "--pause", description = "Says nothing until it is resumed; what differs by then is said then.")
        boolean pause;

        @Option(names = "--resume", description = "Goes on at its next time.")
        boolean resume;
    }

    @ArgGroup
    @Nullable
    Act act;

    @Override
    public Integer call() {
        String path = "/api/round-ups/" + Api.part(name);
        if (act == null) return show(path);
        if (act.out != null) {
            api().download(path + "/preview.eml", act.out);
            out().println("Saved what " + name + " would say now to " + act.out + ".");
            return 0;
        }
        if (act.send) return send(path);
        JsonNode after = api().post(path + (act.pause ? "/pause" : "/resume"), null);
        out().println(
                        act.pause
                                ? name + " is paused."
                                : name + " goes on; next: " + Words.time(after.path("nextSlot")) + ".");
        return 0;
    }

    private Integer show(String path) {
        JsonNode preview = api().get(path + "/preview");
        if (preview.path("subject").isNull()) {
            out().println(name + " has nothing to say now.");
            return 0;
        }
        out().println("Subject: " + preview.path("subject").asString(""));
        out().println();
        out().println(preview.path("text").asString("").stripTrailing());
        return 0;
    }

    private Integer send(String path) {
        JsonNode sent = api().post(path + "/send", null);
        out().println(
                        sent.path("message").isNull()
                                ? name + " has nothing to say, so nothing is sent."
                                : name + " is sent: odd outbox has it.");
        return 0;
    }
}
