package dev.oddsentry.cli.trying;

import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.common.BackgroundWork;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.BackTestFinding;
import dev.oddsentry.contract.BackTestResult;
import dev.oddsentry.contract.LongWorkView;
import dev.oddsentry.contract.VariantResult;
import java.math.BigDecimal;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

@Command(
        name = "backtest",
        mixinStandardHelpOptions = true,
        description = "Show how often a rule would have sent messages.",
        footer = {
            "",
            "Example: odd backtest late-sailings --days 90",
            "         odd backtest late-sailings --days 90 --threshold late_minutes=20,25,30",
            "         odd backtest late-sailings --condition \"delay_min > 30\"",
            "         odd backtest late-sailings --without open-after,remind-every",
            "Past slots are calculated from today's data. Ctrl-C stops the back-test in the service too."
        })
public final class BackTestCommand extends ServiceCommand {
    private static final Set<String> SETTINGS = Set.of("OPEN_AFTER", "CLEAR_AFTER", "CONFIRM_AFTER", "REMIND_EVERY");

    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    CopyOption copy;

    @Option(names = "--days", paramLabel = "N", defaultValue = "90", description = "Number of days (90).")
    int days;

    @Option(
            names = "--threshold",
            paramLabel = "NAME=VALUE,…",
            description = "Values to try; each replaces all values of the threshold.")
    Map<String, String> thresholds = Map.of();

    @Option(
            names = "--condition",
            paramLabel = "TEXT",
            description = "A condition to try in place of the rule's; can be repeated.")
    List<String> conditions = List.of();

    @Option(
            names = "--without",
            paramLabel = "SETTING,…",
            split = ",",
            description =
                    "Settings of the memory to leave out in turn: open-after, clear-after, confirm-after, remind-every.")
    List<String> without = List.of();

    @Option(
            names = "--draft",
            paramLabel = "FILE",
            description = "Definition file of the rule, instead of the saved one.")
    @Nullable
    Path draft;

    @Option(names = "--slots", description = "List the slots with messages, exceptions or unknown groups.")
    boolean slots;

    @Option(
            names = "--edge",
            description =
                    "List the findings that are told with a value on trial and not as saved, and the other way round.")
    boolean edge;

    @Override
    public Integer call() {
        var body = new LinkedHashMap<String, @Nullable Object>();
        body.put("days", days);
        body.put("copy", copy.key());
        body.put("thresholds", onTrial());
        body.put("conditions", conditions);
        body.put("without", without.stream().map(this::setting).toList());
        String text = draft == null ? null : read(draft);
        body.put("document", text);
        LongWorkView asked;
        try {
            asked = api().post(rule.path("/back-tests"), body, LongWorkView.class);
        } catch (ApiException refused) {
            if (refused.problems().isEmpty() || draft == null) throw refused;
            err().println(ProblemText.of(refused, draft.toString(), text));
            return ExitStatus.of(refused);
        }
        LongWorkView work = new BackgroundWork(api(), err()).await(asked);
        BackTestResult result = work.result();
        if (!work.state().equals("DONE") || result == null) {
            err().println("The back-test " + Words.state(work.state()) + ": " + Words.or(work.reason(), ""));
            return 1;
        }
        if (output.isTable()) {
            out().println("Calculated from today's data, after " + Words.count(result.warmUp(), "warm-up slot") + ".");
            if (result.beyondStart() != null)
                out().println("The schedule starts " + Words.time(result.beyondStart())
                        + "; the back-test looks back beyond that.");
            out().println();
        }
        output.print(
                out(),
                result,
                () -> edge ? atEdge(result) : slots ? bySlot(result) : byVariant(result),
                edge ? "Each of them tells the same findings." : "No slot had an exception.");
        return 0;
    }

    private Map<String, List<BigDecimal>> onTrial() {
        var onTrial = new LinkedHashMap<String, List<BigDecimal>>();
        thresholds.forEach((name, values) -> {
            var numbers = new ArrayList<BigDecimal>();
            for (String value : values.split(",", -1)) numbers.add(number(name, value.strip()));
            onTrial.put(name, numbers);
        });
        return onTrial;
    }

    private String setting(String written) {
        String code = written.strip().toUpperCase(Locale.ROOT).replace('-', '_');
        if (SETTINGS.contains(code)) return code;
        throw new ParameterException(
                spec().commandLine(),
                "\"" + written + "\" is not one of open-after, clear-after, confirm-after, remind-every.");
    }

    private BigDecimal number(String name, String value) {
        try {
            return new BigDecimal(value);
        } catch (NumberFormatException notOne) {
            throw new ParameterException(
                    spec().commandLine(),
                    "\"" + value + "\" is not a number. Example: --threshold " + name + "=20,25,30");
        }
    }

    private static String variant(VariantResult variant) {
        var words = new ArrayList<String>();
        variant.thresholds().forEach((name, value) -> words.add(name + " " + value.toPlainString()));
        if (variant.exceptions() != null) words.add(variant.exceptions());
        if (variant.without() != null)
            words.add("without " + variant.without().toLowerCase(Locale.ROOT).replace('_', '-'));
        return words.isEmpty() ? "as saved" : String.join(", ", words);
    }

    private static Listing byVariant(BackTestResult result) {
        var table = new Listing(
                "With", "Checks", "Messages", "Findings reported", "Max exceptions", "Unknown groups", "More", "Fewer");
        for (var variant : result.variants()) {
            var difference = variant.difference();
            table.add(
                    variant(variant),
                    String.valueOf(variant.checks()),
                    String.valueOf(variant.messages()),
                    String.valueOf(variant.updates()),
                    String.valueOf(variant.highestExceptions()),
                    String.valueOf(variant.unevaluated()),
                    difference == null ? "" : String.valueOf(difference.more()),
                    difference == null ? "" : String.valueOf(difference.fewer()));
        }
        return table;
    }

    private static Listing atEdge(BackTestResult result) {
        var table = new Listing("With", "Compared with the saved rule", "Slot", "Finding", "Value");
        for (var variant : result.variants()) {
            var difference = variant.difference();
            if (difference == null) continue;
            difference.firstMore().forEach(finding -> addAtEdge(table, variant, "told only here", finding));
            difference.firstFewer().forEach(finding -> addAtEdge(table, variant, "no longer told", finding));
        }
        return table;
    }

    private static void addAtEdge(Listing table, VariantResult variant, String which, BackTestFinding finding) {
        table.add(variant(variant), which, Words.time(finding.slot()), finding.finding(), finding.decided());
    }

    private static Listing bySlot(BackTestResult result) {
        var table = new Listing("With", "Slot", "Exceptions", "Critical", "Reported", "Unknown groups");
        for (var variant : result.variants()) {
            for (var slot : variant.slots()) {
                table.add(
                        variant(variant),
                        Words.time(slot.slot()),
                        String.valueOf(slot.exceptions()),
                        String.valueOf(slot.critical()),
                        String.valueOf(slot.updates()),
                        String.valueOf(slot.unevaluated()));
            }
        }
        return table;
    }
}
