package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.BulkActionResult;
import dev.oddsentry.contract.RuleSummary;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.TypeConversionException;

@Command(
        name = "bulk",
        mixinStandardHelpOptions = true,
        description = {
            "Pause, activate, check or hand over many rules.",
            "Lists what would change for each rule; add --apply to do it.",
            "Exit status 0: done for every rule. 1: not done for some."
        },
        footer = {"", "Example: odd bulk hand-over --label terminals --owner \"Terminal desk\" --apply"})
public final class BulkCommand extends ServiceCommand {
    /** What is done with each. */
    enum Act {
        pause,
        activate,
        check,
        hand_over,
        recipients
    }

    @Parameters(
            index = "0",
            paramLabel = "ACT",
            description = "pause, activate, check, hand-over or recipients.",
            converter = ActOf.class)
    @SuppressWarnings("NullAway.Init")
    Act act;

    static final class ActOf implements ITypeConverter<Act> {
        @Override
        public Act convert(String text) {
            for (Act each : Act.values()) if (each.name().replace('_', '-').equals(text)) return each;
            throw new TypeConversionException(
                    "\"" + text + "\" is not an action. Use pause, activate, check, hand-over or recipients.");
        }
    }

    @Parameters(
            index = "1..*",
            paramLabel = "RULE",
            description = "Names of rules; or select them with --label or --owned-by.")
    @SuppressWarnings("NullAway.Init")
    List<String> rules = new ArrayList<>();

    @Option(names = "--label", paramLabel = "LABEL", description = "All rules with this label.")
    @Nullable
    String label;

    @Option(names = "--owned-by", paramLabel = "TEAM", description = "All rules of this team.")
    @Nullable
    String ownedBy;

    @Option(names = "--owner", paramLabel = "TEAM", description = "With hand-over: the new owner.")
    @Nullable
    String owner;

    @Option(names = "--add", paramLabel = "ADDRESS", description = "With recipients: address to add.")
    @SuppressWarnings("NullAway.Init")
    List<String> add = new ArrayList<>();

    @Option(names = "--remove", paramLabel = "ADDRESS", description = "With recipients: address to remove.")
    @SuppressWarnings("NullAway.Init")
    List<String> remove = new ArrayList<>();

    @Option(
            names = "--reason",
            paramLabel = "TEXT",
            defaultValue = "",
            description = "Reason, stored with the revisions.")
    @SuppressWarnings("NullAway.Init")
    String reason;

    @Option(names = "--apply", description = "Make the changes; otherwise they are only listed.")
    boolean really;

    @Option(names = "--json", description = "The list as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var chosen = chosen();
        if (chosen.isEmpty())
            throw new ParameterException(
                    spec().commandLine(), "No rules selected. Name them, or use --label or --owned-by.");
        var body = new LinkedHashMap<String, Object>();
        body.put("action", act.name().toUpperCase(Locale.ROOT));
        body.put("rules", chosen);
        if (owner != null) body.put("owner", owner);
        body.put("add", add);
        body.put("remove", remove);
        body.put("reason", reason);
        List<BulkActionResult> done =
                api().postForList("/api/bulk-actions?apply=" + really, body, BulkActionResult.class);
        boolean all = true;
        for (var each : done) all &= each.refused() == null;
        if (json) {
            OutputOptions.printJson(out(), done);
            return all ? 0 : 1;
        }
        for (var each : done) {
            String rule = each.rule();
            if (each.refused() == null) out().println("  " + rule + ": " + each.result());
            else err().println("  " + rule + " is not changed: " + Words.or(each.refused(), ""));
        }
        if (!really) out().println("Nothing has changed yet. Add --apply to make the changes.");
        return all ? 0 : 1;
    }

    private List<String> chosen() {
        if (label == null && ownedBy == null) return rules;
        var chosen = new ArrayList<>(rules);
        for (var rule : api().list("/api/rules", RuleSummary.class)) {
            boolean labelled = label == null || rule.labels().contains(label);
            boolean owned = ownedBy == null || ownedBy.equals(rule.owner());
            String name = rule.name();
            if (labelled && owned && !chosen.contains(name)) chosen.add(name);
        }
        return chosen;
    }
}
