package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Differences;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.Draft;
import dev.oddsentry.contract.Saved;
import java.nio.file.Path;
import java.util.Collections;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

@Command(
        name = "draft",
        mixinStandardHelpOptions = true,
        description = {
            "Show, save, apply or discard draft changes of a rule.",
            "The active rule is unchanged until the changes are applied."
        },
        footer = {
            "",
            "Example: odd draft late-sailings --file late-sailings.rule.yaml",
            "         odd draft late-sailings",
            "         odd draft late-sailings --apply --reason \"quieter in winter\""
        })
public final class DraftCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    /** One thing at a time. */
    static final class Act {
        @Option(names = "--file", paramLabel = "FILE", description = "Save this definition file as draft changes.")
        @Nullable
        Path file;

        @Option(names = "--apply", description = "Apply the draft changes to the rule.")
        boolean switchTo;

        @Option(names = "--discard", description = "Discard the draft changes.")
        boolean discard;
    }

    @ArgGroup
    @Nullable
    Act act;

    @Option(
            names = "--over",
            paramLabel = "VERSION",
            description = "With --file: version of the existing draft that yours replaces.")
    @Nullable
    Integer over;

    @Option(
            names = "--reason",
            paramLabel = "TEXT",
            defaultValue = "",
            description = "Reason, stored with the revision.")
    @SuppressWarnings("NullAway.Init")
    String reason;

    @Option(names = "--treat-as-known", description = "Treat what the changed rule finds as known; it is not reported.")
    boolean treatAsKnown;

    @Option(names = "--json", description = "The draft as JSON.")
    boolean json;

    @Override
    public Integer call() {
        if (act != null && act.file != null) return lay(act.file);
        if (act != null && act.switchTo) {
            Saved saved = api().post(
                            rule.path("/draft/apply?reason=" + Api.part(reason)
                                    + (treatAsKnown ? "&treatAsKnown=true" : "")),
                            null,
                            Saved.class);
            out().println("The draft changes of " + rule.name() + " are applied, as revision " + saved.revision()
                    + ".");
            PushCommand.effect(saved.effect(), treatAsKnown).ifPresent(out()::println);
            return 0;
        }
        if (act != null && act.discard) {
            api().delete(rule.path("/draft"));
            out().println("The draft changes of " + rule.name() + " are discarded.");
            return 0;
        }
        tell(api().get(rule.path("/draft"), Draft.class));
        return 0;
    }

    private Integer lay(Path file) {
        String text = read(file);
        try {
            String seen = Api.query(Collections.singletonMap("version", over == null ? null : over.toString()));
            tell(api().putText(rule.path("/draft" + seen), text, Draft.class));
            return 0;
        } catch (ApiException refused) {
            if (refused.problems().isEmpty()) throw refused;
            err().println(ProblemText.of(refused, file.toString(), text));
            return ExitStatus.of(refused);
        }
    }

    private void tell(Draft draft) {
        if (json) {
            OutputOptions.printJson(out(), draft);
            return;
        }
        out().println("Draft changes of " + rule.name() + " by "
                + draft.author() + ", "
                + Words.time(draft.at()) + ", version " + draft.version() + ", made from revision "
                + draft.baseRevision() + ".");
        if (draft.baseRevision() != draft.revision())
            out().println("The rule has a newer revision, " + draft.revision()
                    + ". Compare, then save the draft again (--file FILE --over "
                    + draft.version() + "), then apply.");
        JsonNode saved = api().get("/api/definitions/rule/" + Api.part(rule.name()) + ".json");
        var lines = Differences.lines(saved, new JsonMapper().valueToTree(draft.document()));
        lines.forEach(line -> out().println("  " + line));
        if (lines.isEmpty()) out().println("  It is the same as the rule.");
        PushCommand.effect(draft.effect(), treatAsKnown)
                .ifPresent(words -> out().println("When applied:" + words.replaceFirst("^ +", " ")));
        out().println("odd preview " + rule.name() + " --draft FILE compares what it finds with what the rule finds.");
    }
}
