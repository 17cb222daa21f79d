package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.ThresholdEffectOnRule;
import dev.oddsentry.contract.ThresholdPage;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;

@Command(
        name = "set-threshold",
        mixinStandardHelpOptions = true,
        description = "Set a threshold, now or from a date.",
        footer = {
            "",
            "Example: odd set-threshold late_minutes 20 --effect",
            "         odd set-threshold poor_load 45 --for \"Holm – Vik\" --from 2026-06-01 --reason \"summer timetable\"",
            "         odd set-threshold poor_load --remove --from 2026-06-01 --reason \"timetable withdrawn\""
        })
public final class SetThresholdCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(index = "0", paramLabel = "THRESHOLD", description = "Name of the threshold.")
    @SuppressWarnings("NullAway.Init")
    String name;

    @Parameters(index = "1", arity = "0..1", paramLabel = "VALUE", description = "The value.")
    @Nullable
    BigDecimal number;

    @Option(
            names = "--for",
            paramLabel = "KEY",
            description = "Key value; once per key column, in their order. Without it: the default for all other keys.")
    List<String> key = List.of();

    @Option(names = "--from", paramLabel = "DATE", description = "First date it is valid, in each rule's zone.")
    @Nullable
    LocalDate from;

    @Option(names = "--reason", paramLabel = "WHY", description = "Reason, stored with the value.")
    @Nullable
    String reason;

    @Option(names = "--treat-as-known", description = "Treat what the value finds now as known; it is not reported.")
    boolean treatAsKnown;

    @Option(names = "--remove", description = "Remove the value of this key and date.")
    boolean takeBack;

    @Option(names = "--effect", description = "Change nothing; show the exceptions of each rule before and after.")
    boolean effect;

    @Override
    public Integer call() {
        if ((number == null) != takeBack)
            throw new ParameterException(spec().commandLine(), "Give either a value or --remove.");
        if (!effect && reason == null)
            throw new ParameterException(
                    spec().commandLine(), "Give a reason with --reason, or use --effect to change nothing.");
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("values", List.of(value()));
        String path = "/api/thresholds/" + Api.part(name);
        if (effect) {
            List<ThresholdEffectOnRule> effects =
                    api().postForList(path + "/effect", body, ThresholdEffectOnRule.class);
            output.print(out(), effects, () -> effects(effects), "No rule uses the threshold " + name + ".");
            return 0;
        }
        body.put("reason", reason);
        body.put("treatAsKnown", treatAsKnown);
        ThresholdPage page = api().post(path + "/values", body, ThresholdPage.class);
        if (output.isJson()) OutputOptions.printJson(out(), page);
        else out().println(said() + ".");
        return 0;
    }

    private Map<String, @Nullable Object> value() {
        var value = new LinkedHashMap<String, @Nullable Object>();
        value.put("key", key);
        value.put("from", from == null ? null : from.toString());
        value.put("number", number);
        return value;
    }

    private String said() {
        var words = new ArrayList<String>();
        words.add(number == null ? name + " is removed" : name + " is " + number.toPlainString());
        if (!key.isEmpty()) words.add("for " + String.join(", ", key));
        if (from != null) words.add("from " + from);
        return String.join(" ", words);
    }

    private static Listing effects(List<ThresholdEffectOnRule> effects) {
        var table = new Listing("Rule", "Exceptions now", "Then", "Other severity", "");
        for (var each : effects) {
            table.add(
                    each.rule(),
                    Words.or(each.before(), ""),
                    Words.or(each.after(), ""),
                    Words.or(each.otherSeverity(), ""),
                    Words.or(each.refused(), ""));
        }
        return table;
    }
}
