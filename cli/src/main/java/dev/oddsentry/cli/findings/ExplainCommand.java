package dev.oddsentry.cli.findings;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.StoryText;
import dev.oddsentry.cli.output.Words;
import java.io.PrintWriter;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
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
        JsonNode told = to == null
                ? api().get(rule.path("/story?" + String.join("&", asked)))
                : api().get(rule.path("/told?to=" + Api.part(to) + "&on=" + (on == null ? LocalDate.now() : on)));
        if (json) out().println(told.toPrettyString());
        else (to == null ? StoryText.story(told) : StoryText.day(told)).forEach(out()::println);
        return 0;
    }

    private void explain(JsonNode summary, JsonNode text, JsonNode nextDates) {
        PrintWriter out = out();
        boolean grouped = text.path("grouped").asBoolean(false);
        out.println(summary.path("title").asString("") + " (" + Words.state(summary.path("state")) + ", revision "
                + summary.path("revision") + ", owned by "
                + summary.path("owner").asString("") + ")");
        out.println("  " + (grouped ? "An exception, " : "An exception is a row: ")
                + text.path("sentence").asString("") + ".");
        severities(text.path("severity")).forEach(line -> out.println("  " + line));
        if (text.path("hold").isString())
            out.println("  It opens once it has lasted " + text.path("hold").asString() + ".");
        if (text.path("misses").isString())
            out.println(
                    "  It clears once it was missed for " + text.path("misses").asString() + ".");
        boolean full = text.path("mode").asString("").equals("full");
        out.println("  It mails "
                + (full ? "everything, each time" : "what is " + alternatives(Words.texts(text.path("report"))))
                + (text.path("fireSentence").isString()
                        ? ", when " + text.path("fireSentence").asString() + "."
                        : ", whenever there is something to tell."));
        out.println("  One finding for each "
                + orElse(String.join(", ", Words.texts(text.path("key"))), grouped ? "whole result" : "row") + ".");
        out.println("  It reads the query " + text.path("query").asString("") + " from "
                + text.path("source").asString("") + parameters(text.path("parameters")) + ".");
        var thresholds = Words.texts(text.path("thresholds"));
        if (!thresholds.isEmpty()) out.println("  It uses the thresholds " + String.join(", ", thresholds) + ".");
        var dates = new ArrayList<String>();
        for (JsonNode date : nextDates) if (dates.size() < 3) dates.add(Words.time(date));
        out.println("  It is checked " + text.path("schedule").asString("on demand only")
                + (dates.isEmpty() ? "." : "; next: " + String.join(", ", dates) + "."));
        String to = orElse(String.join(", ", Words.texts(summary.path("to"))), "nobody");
        JsonNode copies = text.path("copies");
        if (copies.isObject())
            out.println(
                    "  There is a personal copy for each " + copies.path("key").asString("") + " of the query "
                            + copies.path("from").asString("") + ", mailed to its "
                            + copies.path("address").asString("")
                            + "; mail for one without goes to " + to + ".");
        else out.println("  Mail goes to " + to + ".");
    }

    private static List<String> severities(JsonNode bands) {
        var lines = new ArrayList<String>();
        for (JsonNode band : bands) {
            lines.add("It is " + Words.state(band.path("severity"))
                    + (band.path("sentence").isString()
                            ? " where " + band.path("sentence").asString() + "."
                            : lines.isEmpty() ? "." : " otherwise."));
        }
        return lines;
    }

    private static String parameters(JsonNode parameters) {
        var words = new ArrayList<String>();
        parameters
                .properties()
                .forEach(each ->
                        words.add(each.getKey() + " = " + each.getValue().asString("")));
        return words.isEmpty() ? "" : " with " + String.join(", ", words);
    }

    private static String alternatives(List<String> words) {
        return words.size() < 2
                ? String.join("", words)
                : String.join(", ", words.subList(0, words.size() - 1)) + " or " + words.getLast();
    }

    private static String orElse(String text, String otherwise) {
        return text.isEmpty() ? otherwise : text;
    }
}
