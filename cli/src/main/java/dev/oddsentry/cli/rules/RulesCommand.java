package dev.oddsentry.cli.rules;

import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.LatestCheck;
import dev.oddsentry.contract.RuleSummary;
import dev.oddsentry.contract.SavedFilter;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;

@Command(
        name = "rules",
        mixinStandardHelpOptions = true,
        description = "List rules with state, open findings and next check.",
        footer = {
            "",
            "Example: odd rules fuel schedule:06:00",
            "         odd rules --outcome failed --csv",
            "         odd rules --saved 'Late today'"
        })
public final class RulesCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Parameters(
            arity = "0..*",
            paramLabel = "WORD",
            description = {
                "Only rules in which each word is found. KIND:WORD is looked for in one kind alone:",
                "name, query, column, source, threshold, to, label, owner, schedule, format, split or copied."
            })
    List<String> words = List.of();

    @Option(names = "--state", paramLabel = "STATE", description = "draft, active or paused.")
    RuleFilter.@Nullable State state;

    @Option(
            names = "--outcome",
            paramLabel = "OUTCOME",
            description = "Of the last check: failed, fired, quiet or never.")
    RuleFilter.@Nullable Outcome outcome;

    @Option(names = "--label", paramLabel = "LABEL", description = "Only rules with this label.")
    @Nullable
    String label;

    @Option(names = "--owner", paramLabel = "OWNER", description = "Only rules of this owner.")
    @Nullable
    String owner;

    @Option(names = "--open", description = "Only rules with open findings.")
    boolean open;

    @Option(
            names = "--sort",
            paramLabel = "ORDER",
            description = "next (check), open (most open findings first) or last (longest since a check).")
    RuleFilter.@Nullable Order order;

    @Option(
            names = "--saved",
            paramLabel = "NAME",
            description = "A filter saved in the console, yours or of a team; further options narrow it down.")
    @Nullable
    String saved;

    @Override
    public Integer call() {
        var asked = new RuleFilter(words, state, outcome, label, owner, open, order);
        var filter = saved == null ? asked : savedFilter(saved).with(asked);
        List<RuleSummary> all = api().list("/api/rules", RuleSummary.class);
        var rules = filter.of(all);
        String none = all.isEmpty() ? "No rules yet. Write one and save it with: odd push FILE" : "No rules match.";
        output.print(out(), rules, () -> table(rules), none);
        return 0;
    }

    /** One's own before a team's of the same name. */
    private RuleFilter savedFilter(String name) {
        var filters = api().list("/api/filters", SavedFilter.class);
        return filters.stream()
                .filter(each -> each.name().equals(name))
                .findFirst()
                .map(each -> RuleFilter.saved(each.filter()))
                .orElseThrow(() -> new ParameterException(
                        spec().commandLine(),
                        filters.isEmpty()
                                ? "There are no saved filters. Save one above the list of rules in the console."
                                : "There is no saved filter \"" + name + "\". Saved: "
                                        + filters.stream()
                                                .map(SavedFilter::name)
                                                .distinct()
                                                .collect(Collectors.joining(", "))));
    }

    private static Listing table(List<RuleSummary> rules) {
        var table = new Listing("Rule", "Title", "State", "Open", "Last check", "Outcome", "Next check");
        for (var rule : rules) {
            LatestCheck last = rule.latest().isEmpty() ? null : rule.latest().getFirst();
            table.add(
                    rule.name(),
                    rule.title(),
                    rule.ended() ? "ended" : Words.state(rule.state()),
                    Words.severities(rule.open(), rule.looks()),
                    last == null ? "–" : Words.time(last.slot(), Words.zone(rule)),
                    last == null ? "–" : Words.state(last.state()),
                    Words.nextCheck(rule));
        }
        return table;
    }
}
