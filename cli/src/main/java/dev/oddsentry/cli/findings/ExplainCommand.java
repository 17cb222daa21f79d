package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.ExplanationText;
import dev.oddsentry.cli.output.Words;
import dev.oddsentry.contract.Explanation;
import dev.oddsentry.contract.PersonalCopiesText;
import dev.oddsentry.contract.ReportedDay;
import dev.oddsentry.contract.RulePage;
import dev.oddsentry.contract.RuleSummary;
import dev.oddsentry.contract.RuleText;
import dev.oddsentry.contract.SeverityLevelText;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;

@Command(
        name = "explain",
        mixinStandardHelpOptions = true,
        description = "Explain a rule, a row, or what a person was sent.",
        footer = {
            "",
            "Example: odd explain late-sailings",
            "         odd explain late-sailings --key 48211",
            "         odd explain late-sailings --to ines.holm@skerryline.example --on 2026-11-23"
        })
public final class ExplainCommand extends ServiceCommand {
    private static final int LABEL_WIDTH = 14;
    private static final int MOST_DATES = 3;
    private static final DateTimeFormatter NEXT = DateTimeFormatter.ofPattern("EEE d MMM HH:mm", Locale.ENGLISH);

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    CopyOption copy;

    @Option(names = "--json", description = "The service's answer as JSON.")
    boolean json;

    @Option(
            names = "--key",
            paramLabel = "VALUE",
            description = "Value of a key column; once per column, in their order. \"missing\" if it has none.")
    List<String> key = List.of();

    @Option(names = "--to", paramLabel = "ADDRESS", description = "Address of a recipient.")
    @Nullable
    String to;

    @Option(names = "--on", paramLabel = "DATE", description = "Date in the rule's zone. Default: today.")
    @Nullable
    LocalDate on;

    @Override
    public Integer call() {
        if (!key.isEmpty() || to != null) return story();
        RulePage page = api().get(rule.path(""), RulePage.class);
        if (json) OutputOptions.printJson(out(), page);
        else explain(page.rule(), page.text(), page.nextDates());
        return 0;
    }

    private Integer story() {
        var asked = new ArrayList<String>();
        key.forEach(value -> asked.add("key=" + Api.part(value)));
        if (copy.key() != null) asked.add("copy=" + Api.part(copy.key()));
        if (to == null) {
            var explanation = api().get(rule.path("/explanation?" + String.join("&", asked)), Explanation.class);
            tell(explanation, ExplanationText.finding(explanation));
        } else {
            var day = on == null ? LocalDate.now() : on;
            var reported = api().get(rule.path("/reported?to=" + Api.part(to) + "&on=" + day), ReportedDay.class);
            tell(reported, ExplanationText.day(reported));
        }
        return 0;
    }

    private void tell(Object answer, List<String> lines) {
        if (json) OutputOptions.printJson(out(), answer);
        else lines.forEach(out()::println);
    }

    private void explain(RuleSummary summary, RuleText text, List<Instant> nextDates) {
        out().println(summary.title() + " (" + Words.state(summary.state()) + ", revision " + summary.revision()
                + ", owner " + summary.owner() + ")");
        boolean plain = text.mode().equals("PLAIN");
        line(plain ? "Rows" : "Exception", text.sentence());
        if (!plain) line("Severity", severities(text.severity()));
        if (text.openAfter() != null) line("Open after", text.openAfter());
        if (text.clearAfter() != null) line("Clear after", text.clearAfter());
        line("Reports", reports(text));
        if (text.fireSentence() != null) line("Fire only if", text.fireSentence());
        line("Query", text.query() + " on " + text.source() + parameters(text.parameters()));
        var thresholds = text.thresholds();
        if (!thresholds.isEmpty()) line("Thresholds", String.join(", ", thresholds));
        line("Schedule", text.schedule());
        var zone = Words.zone(summary);
        var dates = new ArrayList<String>();
        for (var date : nextDates) if (dates.size() < MOST_DATES) dates.add(NEXT.format(date.atZone(zone)));
        if (!dates.isEmpty()) line("Next checks", String.join(", ", dates) + " (" + zone.getId() + ")");
        String to = orElse(String.join(", ", summary.to()), "none");
        PersonalCopiesText copies = text.copies();
        if (copies != null)
            line(
                    "Copies",
                    "one per " + copies.key() + " of query "
                            + copies.from()
                            + ", sent to its " + copies.address()
                            + "; without one, to the recipients");
        line("Recipients", to);
    }

    private void line(String label, String words) {
        out().println("  " + label + " ".repeat(LABEL_WIDTH - label.length()) + words);
    }

    private static String reports(RuleText text) {
        boolean grouped = text.grouped();
        if (text.mode().equals("PLAIN")) return "its rows as they are, as a plain report";
        boolean full = text.mode().equals("FULL");
        String what = full ? "all open findings, every time" : all(text.report()) + " findings";
        return what + "; one finding per " + orElse(String.join(", ", text.key()), grouped ? "whole result" : "row");
    }

    /** {@code critical: late by at least 45 min; otherwise warning}. */
    private static String severities(List<SeverityLevelText> levels) {
        var words = new ArrayList<String>();
        for (var level : levels) {
            String severity = Words.state(level.severity());
            if (level.sentence() != null) words.add(severity + ": " + level.sentence());
            else words.add(words.isEmpty() ? severity : "otherwise " + severity);
        }
        return String.join("; ", words);
    }

    private static String parameters(Map<String, String> parameters) {
        var words = new ArrayList<String>();
        parameters.forEach((name, value) -> words.add(name + " = " + value));
        return words.isEmpty() ? "" : ", " + String.join(", ", words);
    }

    private static String all(List<String> words) {
        return words.size() < 2
                ? String.join("", words)
                : String.join(", ", words.subList(0, words.size() - 1)) + " and " + words.getLast();
    }

    private static String orElse(String text, String otherwise) {
        return text.isEmpty() ? otherwise : text;
    }
}
