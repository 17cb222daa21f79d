package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.ThresholdPage;
import dev.oddsentry.contract.ThresholdSummary;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "thresholds",
        mixinStandardHelpOptions = true,
        description = "List thresholds, their values and changes.",
        footer = {
            "",
            "Example: odd thresholds",
            "         odd thresholds poor_load",
            "         odd thresholds poor_load --changes"
        })
public final class ThresholdsCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(arity = "0..1", paramLabel = "THRESHOLD", description = "One threshold, to list its values.")
    @Nullable
    String name;

    @Option(names = "--changes", description = "List its changes: who, when and why.")
    boolean changes;

    @Override
    public Integer call() {
        if (name == null) {
            List<ThresholdSummary> all = api().list("/api/thresholds", ThresholdSummary.class);
            output.print(out(), all, () -> listing(all), "No thresholds yet.");
            return 0;
        }
        ThresholdPage page = api().get("/api/thresholds/" + Api.part(name), ThresholdPage.class);
        output.print(
                out(),
                page,
                () -> changes ? changes(page) : values(page),
                "The threshold " + name + " has no value yet.");
        return 0;
    }

    private static Listing listing(List<ThresholdSummary> all) {
        var table = new Listing("Threshold", "Title", "Now", "Unit", "Key columns", "Values", "Planned", "Used by");
        for (var each : all) {
            table.add(
                    each.name(),
                    each.title(),
                    Words.or(each.number(), "–"),
                    Words.or(each.unit(), ""),
                    Listing.joined(each.key()),
                    String.valueOf(each.values()),
                    String.valueOf(each.planned()),
                    Listing.joined(each.rules()));
        }
        return table;
    }

    private static Listing values(ThresholdPage page) {
        var table = new Listing("For", "From", "Value", "");
        for (var value : page.values()) {
            table.add(
                    forWhom(value.key()),
                    Words.or(value.from(), "always"),
                    String.valueOf(value.number()),
                    Words.state(value.when()));
        }
        return table;
    }

    private static Listing changes(ThresholdPage page) {
        var table = new Listing("When", "Who", "For", "From", "Value", "Reason");
        for (var given : page.history()) {
            table.add(List.of(
                    Words.time(given.setAt()),
                    given.setBy(),
                    forWhom(given.key()),
                    Words.or(given.from(), "always"),
                    Words.or(given.number(), "removed"),
                    given.reason()));
        }
        return table;
    }

    private static String forWhom(List<String> key) {
        return key.isEmpty() ? "default" : String.join(", ", key);
    }
}
