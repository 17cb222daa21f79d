package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.ExplanationText;
import dev.oddsentry.cli.output.Words;
import java.time.Instant;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

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
        JsonNode page = api().get(rule.path(""));
        if (json) out().println(page.toPrettyString());
        else explain(page.path("rule"), page.path("text"), page.path("nextDates"));
        return 0;
    }

    private Integer story() {
        var asked = new ArrayList<String>();
        key.forEach(value -> asked.add("key=" + Api.part(value)));
        if (copy.key() != null) asked.add("copy=" + Api.part(copy.key()));
        JsonNode explanation = to == null
                ? api().get(rule.path("/explanation?" + String.join("&", asked)))
                : api().get(rule.path("/reported?to=" + Api.part(to) + "&on=" + (on == null ? LocalDate.now() : on)));
        if (json) out().println(explanation.toPrettyString());
        else
            (to == null ? ExplanationText.finding(explanation) : ExplanationText.day(explanation))
                    .forEach(out()::println);
        return 0;
    }

    private void explain(JsonNode summary, JsonNode text, JsonNode nextDates) {
        out().println(summary.path("title").asString("") + " (" + Words.state(summary.path("state")) + ", revision "
                + summary.path("revision") + ", owner " + summary.path("owner").asString("") + ")");
        line("Exception", text.path("sentence").asString(""));
        line("Severity", severities(text.path("severity")));
        if (text.path("openAfter").isString())
            line("Open after", text.path("openAfter").asString());
        if (text.path("clearAfter").isString())
            line("Clear after", text.path("clearAfter").asString());
        line("Reports", reports(text));
        if (text.path("fireSentence").isString())
            line("Fire only if", text.path("fireSentence").asString());
        line(
                "Query",
                text.path("query").asString("") + " on " + text.path("source").asString("")
                        + parameters(text.path("parameters")));
        var thresholds = Words.texts(text.path("thresholds"));
        if (!thresholds.isEmpty()) line("Thresholds", String.join(", ", thresholds));
        line("Schedule", text.path("schedule").asString("on demand only"));
        var zone = Words.zone(summary);
        var dates = new ArrayList<String>();
        for (JsonNode date : nextDates)
            if (dates.size() < MOST_DATES)
                dates.add(NEXT.format(Instant.parse(date.asString("")).atZone(zone)));
        if (!dates.isEmpty()) line("Next checks", String.join(", ", dates) + " (" + zone.getId() + ")");
        String to = orElse(String.join(", ", Words.texts(summary.path("to"))), "none");
        JsonNode copies = text.path("copies");
        if (copies.isObject())
            line(
                    "Copies",
                    "one per " + copies.path("key").asString("") + " of query "
                            + copies.path("from").asString("")
                            + ", sent to its " + copies.path("address").asString("")
                            + "; without one, to the recipients");
        line("Recipients", to);
    }

    private void line(String label, String words) {
        out().println("  " + label + " ".repeat(LABEL_WIDTH - label.length()) + words);
    }

    private static String reports(JsonNode text) {
        boolean grouped = text.path("grouped").asBoolean(false);
        boolean full = text.path("mode").asString("").equals("full");
        String what = full ? "all open findings, every time" : all(Words.texts(text.path("report"))) + " findings";
        return what + "; one finding per "
                + orElse(String.join(", ", Words.texts(text.path("key"))), grouped ? "whole result" : "row");
    }

    /** {@code critical: late by at least 45 min; otherwise warning}. */
    private static String severities(JsonNode levels) {
        var words = new ArrayList<String>();
        for (JsonNode level : levels) {
            String severity = Words.state(level.path("severity"));
            if (level.path("sentence").isString())
                words.add(severity + ": " + level.path("sentence").asString());
            else words.add(words.isEmpty() ? severity : "otherwise " + severity);
        }
        return String.join("; ", words);
    }

    private static String parameters(JsonNode parameters) {
        var words = new ArrayList<String>();
        parameters
                .properties()
                .forEach(each ->
                        words.add(each.getKey() + " = " + each.getValue().asString("")));
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
