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
import dev.oddsentry.contract.DraftPreview;
import dev.oddsentry.contract.PreviewCell;
import dev.oddsentry.contract.PreviewComparison;
import dev.oddsentry.contract.PreviewResult;
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
            PreviewResult seen = api().post(rule.path("/preview" + query), null, PreviewResult.class);
            if (output.isTable()) summarise(out, seen);
            output.print(out, seen, () -> table(seen), seen.plain() ? "No rows." : "No exceptions.");
            return 0;
        }
        String text = read(draft);
        DraftPreview both;
        try {
            both = api().postText("/api/preview" + query, text, "application/yaml", DraftPreview.class);
        } catch (ApiException refused) {
            if (refused.problems().isEmpty()) throw refused;
            err().println(ProblemText.of(refused, draft.toString(), text));
            return ExitStatus.of(refused);
        }
        PreviewResult seen = both.draft();
        if (output.isTable()) {
            compare(out, both.compared());
            summarise(out, seen);
        }
        output.print(out, both, () -> table(seen), "No exceptions.");
        return 0;
    }

    private static void compare(PrintWriter out, @Nullable PreviewComparison compared) {
        if (compared == null) return;
        out.println("Compared with the saved rule: " + Words.count(compared.both(), "exception")
                + " in both, "
                + compared.onlyDraftCount() + " added, " + compared.onlyActiveCount()
                + " removed.");
        for (var each : compared.onlyDraft()) out.println("  + " + each);
        for (var each : compared.onlyActive()) out.println("  - " + each);
    }

    private static void summarise(PrintWriter out, PreviewResult seen) {
        copies(seen).forEach(out::println);
        String read = Words.count(seen.rowsRead(), "row") + " read in " + seen.tookMillis() + " ms; ";
        if (seen.plain()) out.println(read + "a check now would send " + Words.count(seen.exceptions(), "row") + ".");
        else
            out.println(read + Words.count(seen.exceptions(), "exception") + " ("
                    + Words.severities(seen.bySeverity(), seen.looks()) + "); a check now would report "
                    + seen.wouldReport() + ".");
        for (var nearest : seen.nearest())
            out.println("  The " + (nearest.highest() ? "highest" : "lowest") + " value of " + nearest.label() + " is "
                    + nearest.text() + ".");
        for (var hearer : seen.audiences()) {
            if (hearer.split() != null)
                out.println("  " + hearer.findings() + " of "
                        + hearer.split().replaceFirst("^$", "no value") + " to "
                        + String.join(", ", hearer.to()));
        }
        Words.parts(seen.parts(), seen.grouped()).forEach(out::println);
        Words.advice(seen.suggestions(), seen.warnings(), seen.grouped()).forEach(out::println);
        if (seen.unevaluated() > 0) {
            out.println("  Could not be evaluated: " + Words.unevaluated(seen.unevaluatedGroups(), seen.unevaluated())
                    + ".");
        } else if (seen.unknownRows() > 0) {
            out.println("  " + Words.count(seen.unknownRows(), "row") + " unknown (value missing).");
        }
        out.println();
    }

    /** What each personal copy would come to, and which of them the rest is about. */
    private static List<String> copies(PreviewResult seen) {
        var lines = new ArrayList<String>();
        for (var each : seen.copies()) {
            String failure = Words.or(each.failure(), "");
            lines.add("  " + each.key() + ": "
                    + (failure.isEmpty()
                            ? Words.count(each.exceptions(), "exception") + ", would report " + each.wouldReport()
                                    + " to " + Words.addresses(each.to())
                            : "would fail: " + failure));
        }
        if (!lines.isEmpty()) {
            lines.addFirst(Words.count(seen.copies().size(), "personal copy", "personal copies") + ":");
            lines.add("");
        }
        if (seen.copy() != null) lines.add("Personal copy " + seen.copy() + ":");
        return lines;
    }

    private static Listing table(PreviewResult seen) {
        var headings = new ArrayList<>(seen.plain() ? List.<String>of() : List.of("Severity", "Update"));
        seen.columns().forEach(column -> headings.add(column.label()));
        var table = new Listing(headings);
        for (var row : seen.rows()) {
            var cells = new ArrayList<String>();
            if (row.severity() != null)
                cells.addAll(List.of(Words.severity(row.severity(), row.look()), Listing.joined(row.updates())));
            row.cells().forEach(cell -> cells.add(cell(cell)));
            table.add(cells);
        }
        return table;
    }

    private static String cell(PreviewCell cell) {
        String text = Words.or(cell.text(), "missing");
        return cell.highlighted() ? "[" + text + "]" : text;
    }
}
