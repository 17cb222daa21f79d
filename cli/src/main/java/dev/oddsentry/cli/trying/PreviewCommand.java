package dev.oddsentry.cli.trying;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.common.CopyOption;
import dev.oddsentry.cli.common.ExitStatus;
import dev.oddsentry.cli.common.OutputOptions;
import dev.oddsentry.cli.common.RuleArgument;
import dev.oddsentry.cli.common.ServiceCommand;
import dev.oddsentry.cli.output.Listing;
import dev.oddsentry.cli.output.ProblemText;
import dev.oddsentry.cli.output.Words;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import tools.jackson.databind.JsonNode;

@Command(
        name = "preview",
        mixinStandardHelpOptions = true,
        description = "Show what a check would find and report now.",
        footer = {
            "",
            "Example: odd preview late-sailings",
            "         odd preview late-sailings --draft late-sailings.rule.yaml",
            "         odd preview duty-day --copy Varsund",
            "Cells that made the row an exception are in [brackets]."
        })
public final class PreviewCommand extends ServiceCommand {
    @Mixin
    @SuppressWarnings("NullAway.Init")
    OutputOptions output;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    RuleArgument rule;

    @Mixin
    @SuppressWarnings("NullAway.Init")
    CopyOption copy;

    @Option(
            names = "--at",
            paramLabel = "INSTANT",
            description = "Evaluate at another time. Example: 2026-11-24T04:40:00Z")
    @Nullable
    Instant at;

    @Option(
            names = "--draft",
            paramLabel = "FILE",
            description = "Definition file of the rule, compared with the saved one.")
    @Nullable
    Path draft;

    @Override
    public Integer call() {
        String query = Api.query(copy.with(Collections.singletonMap("at", at == null ? null : at.toString())));
        PrintWriter out = out();
        if (draft == null) {
            JsonNode seen = api().post(rule.path("/preview" + query), null);
            if (output.isTable()) summarise(out, seen);
            output.print(out, seen, () -> table(seen), "No exceptions.");
            return 0;
        }
        String text = read(draft);
        JsonNode both;
        try {
            both = api().postText("/api/preview" + query, text, "application/yaml");
        } catch (ApiException refused) {
            if (refused.problems().isEmpty()) throw refused;
            err().println(ProblemText.of(refused, draft.toString(), text));
            return ExitStatus.of(refused);
        }
        JsonNode seen = both.path("draft");
        if (output.isTable()) {
            compare(out, both.path("compared"));
            summarise(out, seen);
        }
        output.print(out, both, () -> table(seen), "No exceptions.");
        return 0;
    }

    private static void compare(PrintWriter out, JsonNode compared) {
        if (compared.isNull()) return;
        out.println("Compared with the saved rule: " + Words.count(compared.path("both"), "exception")
                + " in both, "
                + compared.path("onlyDraftCount") + " added, " + compared.path("onlyActiveCount")
                + " removed.");
        for (JsonNode each : compared.path("onlyDraft")) out.println("  + " + each.asString(""));
        for (JsonNode each : compared.path("onlyActive")) out.println("  - " + each.asString(""));
    }

    private static void summarise(PrintWriter out, JsonNode seen) {
        copies(seen).forEach(out::println);
        out.println(Words.count(seen.path("rowsRead"), "row") + " read in " + seen.path("tookMillis") + " ms; "
                + Words.count(seen.path("exceptions"), "exception") + " (" + Words.severities(seen.path("bySeverity"))
                + "); a check now would report " + seen.path("wouldReport") + ".");
        for (JsonNode hearer : seen.path("audiences")) {
            if (hearer.path("split").isString())
                out.println("  " + hearer.path("findings") + " of "
                        + hearer.path("split").asString("").replaceFirst("^$", "no value") + " to "
                        + String.join(", ", Words.texts(hearer.path("to"))));
        }
        Words.parts(seen).forEach(out::println);
        Words.advice(seen).forEach(out::println);
        if (seen.path("unevaluated").asLong(0) > 0) {
            out.println("  Could not be evaluated: " + Words.notJudged(seen) + ".");
        } else if (seen.path("unknownRows").asLong(0) > 0) {
            out.println("  " + Words.count(seen.path("unknownRows"), "row") + " unknown (value missing).");
        }
        out.println();
    }

    /** What each personal copy would come to, and which of them the rest is about. */
    private static List<String> copies(JsonNode seen) {
        var lines = new ArrayList<String>();
        for (JsonNode each : seen.path("copies")) {
            String failure = each.path("failure").asString("");
            lines.add("  " + each.path("key").asString("") + ": "
                    + (failure.isEmpty()
                            ? Words.count(each.path("exceptions"), "exception") + ", would report "
                                    + each.path("wouldReport") + " to " + Words.addresses(each.path("to"))
                            : "would fail: " + failure));
        }
        if (!lines.isEmpty()) {
            lines.addFirst(Words.count(seen.path("copies").size(), "personal copy", "personal copies") + ":");
            lines.add("");
        }
        if (seen.path("copy").isString())
            lines.add("Personal copy " + seen.path("copy").asString() + ":");
        return lines;
    }

    private static Listing table(JsonNode seen) {
        var headings = new ArrayList<>(List.of("Severity", "Update"));
        seen.path("columns").forEach(column -> headings.add(column.path("label").asString("")));
        var table = new Listing(headings);
        for (JsonNode row : seen.path("rows")) {
            var cells = new ArrayList<>(
                    List.of(Words.severity(row.path("severity")), Listing.joined(Words.texts(row.path("updates")))));
            row.path("cells").forEach(cell -> cells.add(cell(cell)));
            table.add(cells);
        }
        return table;
    }

    private static String cell(JsonNode cell) {
        String text = cell.path("text").isString() ? cell.path("text").asString() : "missing";
        return cell.path("highlighted").asBoolean(false) ? "[" + text + "]" : text;
    }
}
