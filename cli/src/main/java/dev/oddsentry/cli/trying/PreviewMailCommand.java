package dev.oddsentry.cli.trying;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.contract.QueuedMessages;
import java.nio.file.Path;
import java.util.Collections;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "preview-mail",
        mixinStandardHelpOptions = true,
        description = {
            "Save the next message, or email it to you.",
            "If nothing is new, the message shows all open findings."
        },
        footer = {
            "",
            "Example: odd preview-mail safety-gear --split Holm --out holm.eml",
            "         odd preview-mail safety-gear --to-me"
        })
public final class PreviewMailCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    CopyOption copy;

    @Option(names = "--split", paramLabel = "VALUE", description = "Audience of a split rule. Default: the first.")
    @Nullable
    String split;

    /** One of them. */
    static final class Where {
        @Option(names = "--out", paramLabel = "FILE", description = "The file; an existing one is replaced.")
        @Nullable
        Path out;

        @Option(names = "--to-me", description = "Email it to you, marked as a preview; one message per audience.")
        boolean toMe;
    }

    @ArgGroup(multiplicity = "1")
    @SuppressWarnings("NullAway.Init")
    Where where;

    @Override
    public Integer call() {
        if (where.out == null) {
            int sent = api().post(
                            rule.path("/preview-to-me" + Api.query(copy.with(Map.of()))), null, QueuedMessages.class)
                    .messages();
            out().println("The preview was sent to you" + (sent == 1 ? "." : ", in " + sent + " messages."));
            return 0;
        }
        api().download(
                        rule.path("/preview.eml" + Api.query(copy.with(Collections.singletonMap("split", split)))),
                        where.out);
        out().println("Saved the next message of " + rule.name() + " to " + where.out + ".");
        return 0;
    }
}
