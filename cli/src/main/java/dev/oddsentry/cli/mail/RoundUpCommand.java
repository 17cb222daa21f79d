package dev.oddsentry.cli.mail;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.RoundUpPreviewView;
import dev.oddsentry.contract.RoundUpSentView;
import dev.oddsentry.contract.RoundUpView;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "round-up",
        mixinStandardHelpOptions = true,
        description = "Show, send, pause or resume a round-up.",
        footer = {"", "Example: odd round-up terminals-week", "         odd round-up terminals-week --out week.eml"})
public final class RoundUpCommand extends ServiceCommand {
    @Parameters(paramLabel = "ROUND-UP", description = "Name of the round-up.")
    @SuppressWarnings("NullAway.Init")
    String name;

    /** One thing at a time. */
    static final class Act {
        @Option(
                names = "--out",
                paramLabel = "FILE",
                description = "File for the message; an existing one is replaced.")
        @Nullable
        Path out;

        @Option(names = "--send", description = "Send it now to all its recipients.")
        boolean send;

        @Option(names = "--pause", description = "Pause it; updates wait until it is resumed.")
        boolean pause;

        @Option(names = "--resume", description = "Resume it at its next time.")
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
            out().println("Saved the preview of " + name + " to " + act.out + ".");
            return 0;
        }
        if (act.send) return send(path);
        RoundUpView after = api().post(path + (act.pause ? "/pause" : "/resume"), null, RoundUpView.class);
        out().println(
                        act.pause
                                ? name + " is paused."
                                : name + " is resumed. Next: " + Words.time(after.nextSlot()) + ".");
        return 0;
    }

    private Integer show(String path) {
        RoundUpPreviewView preview = api().get(path + "/preview", RoundUpPreviewView.class);
        if (preview.subject() == null) {
            out().println(name + " has nothing to report now.");
            return 0;
        }
        out().println("Subject: " + Words.or(preview.subject(), ""));
        out().println();
        out().println(preview.text().stripTrailing());
        return 0;
    }

    private Integer send(String path) {
        RoundUpSentView sent = api().post(path + "/send", null, RoundUpSentView.class);
        out().println(
                        sent.message() == null
                                ? name + " has nothing to report, so nothing was sent."
                                : name + " is queued. See: odd outbox");
        return 0;
    }
}
