package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.output.Differences;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.cli.output.Words;
import java.nio.file.Path;
import java.util.Collections;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "draft",
        mixinStandardHelpOptions = true,
        description = {
            "Shows the edit that lies beside a rule: what differs, and what a switch to it would do. The rule goes on as it is meanwhile.",
            "With --file: lays one beside it. With --switch: makes it the rule. With --discard: throws it away."
        },
        footer = {
            "",
            "Example: odd draft late-sailings --file late-sailings.rule.yaml",
            "         odd draft late-sailings",
            "         odd draft late-sailings --switch --remark \"quieter in winter\""
        })
public final class DraftCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    /** One thing at a time. */
    static final class Act {
        @Option(names = "--file", paramLabel = "FILE", description = "A document of the rule to lie beside it.")
        @Nullable
        Path file;

        @Option(names = "--switch", description = "The draft becomes the rule.")
        boolean switchTo;

        @Option(names = "--discard", description = "Throws the draft away.")
        boolean discard;
    }

    @ArgGroup
    @Nullable
    Act act;

    @Option(
            names = "--over",
            paramLabel = "VERSION",
            description = "With --file, where a draft lies there already: its version, which yours takes the place of.")
    @Nullable
    Integer over;

    @Option(names = "--remark", paramLabel = "TEXT", defaultValue = "", description = "Why; kept with the revision.")
    @SuppressWarnings("NullAway.Init")
    String remark;

    @Option(
            names = "--as-known",
            description = "What a switch makes the next check find is taken as known, not mailed.")
    boolean asKnown;

    @Option(names = "--json", description = "The draft as JSON.")
    boolean json;

    @Override
    public Integer call() {
        if (act != null && act.file != null) return lay(act.file);
        if (act != null && act.switchTo) {
            JsonNode saved = api().post(
                            rule.path("/draft/switch?remark=" + Api.part(remark) + (asKnown ? "&asKnown=true" : "")),
                            null);
            out().println("The draft of " + rule.name() + " is the rule now, as revision " + saved.path("revision")
                    + ".");
            PushCommand.effect(saved.path("effect").asString(""), asKnown).ifPresent(out()::println);
            return 0;
        }
        if (act != null && act.discard) {
            api().delete(rule.path("/draft"));
            out().println("The draft of " + rule.name() + " is thrown away.");
            return 0;
        }
        tell(api().get(rule.path("/draft")));
        return 0;
    }

    private Integer lay(Path file) {
        String text = read(file);
        try {
            String seen = Api.query(Collections.singletonMap("seen", over == null ? null : over.toString()));
            tell(api().putText(rule.path("/draft" + seen), text));
            return 0;
        } catch (ApiException refused) {
            if (refused.problems().isEmpty()) throw refused;
            err().println(ProblemText.of(refused, file.toString(), text));
            return 1;
        }
    }

    private void tell(JsonNode draft) {
        if (json) {
            OutputOptions.printJson(out(), draft);
            return;
        }
        out().println("Draft of " + rule.name() + " by " + draft.path("author").asString("") + ", "
                + Words.time(draft.path("at")) + ", version " + draft.path("version") + ", made from revision "
                + draft.path("baseRevision") + ".");
        if (draft.path("baseRevision").asInt(0) != draft.path("revision").asInt(0))
            out().println("The rule was saved since, as revision " + draft.path("revision")
                    + ": look at what differs, then lay the draft beside it again (--file FILE --over "
                    + draft.path("version") + ") before you switch.");
        JsonNode saved = api().get("/api/definitions/rule/" + Api.part(rule.name()) + ".json");
        var lines = Differences.lines(saved, draft.path("document"));
        lines.forEach(line -> out().println("  " + line));
        if (lines.isEmpty()) out().println("  It says what the rule says.");
        PushCommand.effect(draft.path("effect").asString(""), asKnown)
                .ifPresent(words -> out().println("After a switch:" + words.replaceFirst("^ +", " ")));
        out().println("odd preview " + rule.name() + " --draft FILE holds what it finds against what the rule finds.");
    }
}
