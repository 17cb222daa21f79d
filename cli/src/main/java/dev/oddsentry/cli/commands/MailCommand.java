package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import java.nio.file.Path;
import java.util.Collections;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

@Command(
        name = "mail",
        mixinStandardHelpOptions = true,
        description = {
            "Writes the message that a check now would send to a file (RFC 5322), for a mail program to open. Nothing is sent or remembered.",
            "Where nothing is new, it has everything that is open."
        },
        footer = {
            "",
            "Example: odd mail safety-gear --preview --split Holm --out holm.eml",
            "         odd mail safety-gear --preview --to-me"
        })
public final class MailCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    CopyOption copy;

    @Option(names = "--preview", description = "Say so: there is nothing else that this command does.")
    boolean preview;

    @Option(names = "--split", paramLabel = "VALUE", description = "Whose part of a split rule; left out: the first.")
    @Nullable
    String split;

    /** One of them. */
    static final class Where {
        @Option(names = "--out", paramLabel = "FILE", description = "The file; replaced if it is there.")
        @Nullable
        Path out;

        @Option(
                names = "--to-me",
                description = "Mails it to you, marked as a preview: every part of a split by itself.")
        boolean toMe;
    }

    @ArgGroup(multiplicity = "1")
    @SuppressWarnings("NullAway.Init")
    Where where;

    @Override
    public Integer call() {
        if (!preview)
            throw new ParameterException(
                    spec().commandLine(), "Write --preview; what was sent is in: odd outbox --rule " + rule.name());
        if (where.out == null) {
            int sent = api().post(rule.path("/preview-to-me" + Api.query(copy.with(Map.of()))), null)
                    .path("messages")
                    .asInt(0);
            out().println("A preview is on its way to you" + (sent == 1 ? "." : ", in " + sent + " mails."));
            return 0;
        }
        api().download(
                        rule.path("/preview.eml" + Api.query(copy.with(Collections.singletonMap("split", split)))),
                        where.out);
        out().println("Saved a preview of the mail of " + rule.name() + " to " + where.out + ".");
        return 0;
    }
}
