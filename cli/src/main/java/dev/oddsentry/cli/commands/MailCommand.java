package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import java.nio.file.Path;
import java.util.Collections;
import org.jspecify.annotations.Nullable;
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
        footer = {"", "Example: odd mail safety-gear --preview --split Holm --out holm.eml"})
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

    @Option(names = "--out", paramLabel = "FILE", required = true, description = "The file; replaced if it is there.")
    @SuppressWarnings("NullAway.Init")
    Path out;

    @Override
    public Integer call() {
        if (!preview)
            throw new ParameterException(
                    spec().commandLine(), "Write --preview; what was sent is in: odd outbox --rule " + rule.name());
        api().download(rule.path("/preview.eml" + Api.query(copy.with(Collections.singletonMap("split", split)))), out);
        out().println("Saved a preview of the mail of " + rule.name() + " to " + out + ".");
        return 0;
    }
}
