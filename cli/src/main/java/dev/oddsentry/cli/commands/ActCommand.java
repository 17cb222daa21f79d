package dev.oddsentry.cli.commands;

import dev.oddsentry.cli.output.Words;
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
import tools.jackson.databind.JsonNode;

@Command(
        name = "act",
        mixinStandardHelpOptions = true,
        description = {
            "Does one thing with many rules: pause, activate, check, hand-over (--owner TEAM), recipients (--add, --remove).",
            "Without --really it only lists what would be done to each.",
            "Exit status 0 where it is done for every rule, 1 where it is not for some."
        },
        footer = {"", "Example: odd act hand-over --label terminals --owner \"Terminal desk\" --really"})
public final class ActCommand extends ServiceCommand {
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
                    "\"" + text + "\" is none of pause, activate, check, hand-over, recipients");
        }
    }

    @Parameters(
            index = "1..*",
            paramLabel = "RULE",
            description = "The rules; or choose them by --label or --owned-by.")
    @SuppressWarnings("NullAway.Init")
    List<String> rules = new ArrayList<>();

    @Option(names = "--label", paramLabel = "LABEL", description = "All rules with that label.")
    @Nullable
    String label;

    @Option(names = "--owned-by", paramLabel = "TEAM", description = "All rules of that team.")
    @Nullable
    String ownedBy;

    @Option(names = "--owner", paramLabel = "TEAM", description = "With hand-over: who gets them.")
    @Nullable
    String owner;

    @Option(names = "--add", paramLabel = "ADDRESS", description = "With recipients: who hears from now on.")
    @SuppressWarnings("NullAway.Init")
    List<String> add = new ArrayList<>();

    @Option(names = "--remove", paramLabel = "ADDRESS", description = "With recipients: who no longer does.")
    @SuppressWarnings("NullAway.Init")
    List<String> remove = new ArrayList<>();

    @Option(names = "--remark", paramLabel = "TEXT", defaultValue = "", description = "Why; kept with the revisions.")
    @SuppressWarnings("NullAway.Init")
    String remark;

    @Option(names = "--really", description = "Do it; otherwise it is only listed.")
    boolean really;

    @Option(names = "--json", description = "The list as JSON.")
    boolean json;

    @Override
    public Integer call() {
        var chosen = chosen();
        if (chosen.isEmpty())
            throw new ParameterException(
                    spec().commandLine(), "No rule is chosen: name some, or give --label or --owned-by.");
        var body = new LinkedHashMap<String, Object>();
        body.put("act", act.name().toUpperCase(Locale.ROOT));
        body.put("rules", chosen);
        if (owner != null) body.put("owner", owner);
        body.put("add", add);
        body.put("remove", remove);
        body.put("remark", remark);
        JsonNode done = api().post("/api/rule-acts?really=" + really, body);
        boolean all = true;
        for (JsonNode each : done) all &= each.path("refused").isNull();
        if (json) {
            OutputOptions.printJson(out(), done);
            return all ? 0 : 1;
        }
        for (JsonNode each : done) {
            String rule = each.path("rule").asString("");
            if (each.path("refused").isNull())
                out().println("  " + rule + ": " + each.path("words").asString(""));
            else
                err().println("  " + rule + " is left as it is: "
                        + each.path("refused").asString(""));
        }
        if (!really) out().println("Nothing is done yet; --really does it.");
        return all ? 0 : 1;
    }

    private List<String> chosen() {
        if (label == null && ownedBy == null) return rules;
        var chosen = new ArrayList<>(rules);
        for (JsonNode rule : api().get("/api/rules")) {
            boolean labelled = label == null || Words.texts(rule.path("labels")).contains(label);
            boolean owned = ownedBy == null || ownedBy.equals(rule.path("owner").asString(""));
            String name = rule.path("name").asString("");
            if (labelled && owned && !chosen.contains(name)) chosen.add(name);
        }
        return chosen;
    }
}
