package dev.oddsentry.service.previews;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.authoring.CheckedDrafts;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.PartCount;
import dev.oddsentry.service.evaluation.SeenRows;
import dev.oddsentry.service.evaluation.UnevaluatedGroup;
import dev.oddsentry.service.evaluation.UnknownRowsSuggestion;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.ExtractRows;
import dev.oddsentry.service.layouts.SeverityLook;
import dev.oddsentry.service.messages.SplitRecipients;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.queries.RunWords;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.reporting.ReportPlanner;
import dev.oddsentry.service.web.RefusedException;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Runs a check that reports and saves nothing; the audit records it. */
@Component
public class Preview {
    private static final int MOST_ROWS_SHOWN = 50;

    private final DefinitionStore definitions;
    private final PreviewRunner previewing;
    private final CopyLookup oneCopy;
    private final ReportPlanner reportPlanner;
    private final SplitRecipients addresses;
    private final CheckedDrafts checkedDrafts;
    private final Audit audit;
    private final DSLContext db;

    Preview(
            DefinitionStore definitions,
            PreviewRunner previewing,
            CopyLookup oneCopy,
            ReportPlanner reportPlanner,
            SplitRecipients addresses,
            CheckedDrafts checkedDrafts,
            Audit audit,
            DSLContext db) {
        this.definitions = definitions;
        this.previewing = previewing;
        this.oneCopy = oneCopy;
        this.reportPlanner = reportPlanner;
        this.addresses = addresses;
        this.checkedDrafts = checkedDrafts;
        this.audit = audit;
        this.db = db;
    }

    /**
     * @param plain true of a plain report, whose exceptions are the rows that are sent
     * @param looks how the rule names and colours the severities
     * @param unknownRows rows that are neither exceptions nor not, since a value is missing
     * @param suggestions how unknown rows could be counted too
     * @param grouped true where the parts count groups, not rows
     * @param unevaluated how many groups are unknown
     * @param unevaluatedGroups the first of them
     * @param wouldReport findings that a check now would report
     * @param audiences the audiences that would get it
     * @param rows the first exceptions, worst first
     * @param nearest where there is no exception, how near the values come to the bounds of the condition
     * @param copy whose personal copy all this is; null where the rule has none
     * @param copies what each of them would come to; empty where the rule has none
     */
    public record PreviewResult(
            Instant slot,
            long rowsRead,
            long tookMillis,
            boolean plain,
            long exceptions,
            Map<Severity, Long> bySeverity,
            Map<Severity, SeverityLook> looks,
            long unknownRows,
            boolean grouped,
            List<PartCount> parts,
            List<UnknownRowsSuggestion> suggestions,
            List<Problem> warnings,
            long unevaluated,
            List<UnevaluatedGroup> unevaluatedGroups,
            int wouldReport,
            List<PreviewAudience> audiences,
            List<PreviewColumn> columns,
            List<PreviewRow> rows,
            List<PreviewExtreme> nearest,
            @Nullable String copy,
            List<CopyPreview> copies) {
        PreviewResult with(List<CopyPreview> others) {
            return new PreviewResult(
                    slot,
                    rowsRead,
                    tookMillis,
                    plain,
                    exceptions,
                    bySeverity,
                    looks,
                    unknownRows,
                    grouped,
                    parts,
                    suggestions,
                    warnings,
                    unevaluated,
                    unevaluatedGroups,
                    wouldReport,
                    audiences,
                    columns,
                    rows,
                    nearest,
                    copy,
                    others);
        }
    }

    /**
     * @param failure why it would fail, in words; null if it would not
     */
    record CopyPreview(
            String key,
            List<String> to,
            long exceptions,
            int wouldReport,
            @Nullable String failure) {}

    /**
     * @param split the value of the split's column; null where the rule is not split
     * @param findings how many findings are reported
     */
    record PreviewAudience(@Nullable String split, List<String> to, int findings) {}

    record PreviewColumn(String name, String label, String type) {}

    /**
     * The highest or the lowest value of a column in the whole result.
     *
     * @param text with its unit
     */
    record PreviewExtreme(String column, String label, boolean highest, String text) {}

    /**
     * @param severity null of a row of a plain report, as its look
     * @param updates why it would be reported; empty if it would not
     */
    record PreviewRow(
            @Nullable Severity severity, @Nullable SeverityLook look, List<String> updates, List<PreviewCell> cells) {}

    /** @param link where the value leads; null for nowhere */
    record PreviewCell(
            @Nullable String text,
            boolean highlighted,
            @Nullable String link) {}

    /**
     * A draft held against the rule that is active.
     *
     * @param both how many exceptions both find
     * @param otherSeverity how many of those the draft finds better or worse
     * @param onlyDraft the first identities that only the draft finds
     * @param onlyActive the first that only the active rule finds
     */
    record PreviewComparison(
            long both,
            long otherSeverity,
            long onlyDraftCount,
            List<String> onlyDraft,
            long onlyActiveCount,
            List<String> onlyActive) {}

    /** @param compared null where there is no active rule to hold it against, or its query or key is another */
    public record DraftPreview(
            PreviewResult draft, @Nullable PreviewComparison compared) {}

    /** @throws RefusedException if it cannot be run, with the reason in words */
    public PreviewResult run(Person by, RuleId ruleId, Instant slot, @Nullable String copy) {
        var rule = definitions.rule(ruleId).orElseThrow();
        audit.record(db, by.id(), AuditAct.PREVIEW_RULE, rule.definition().name(), copy);
        return previewing.inWords(() -> seen(rule.definition(), ruleId, slot, copy));
    }

    /** Of the personal copy that is asked for, or else the first with updates. */
    private PreviewResult seen(RuleDefinition rule, @Nullable RuleId ruleId, Instant slot, @Nullable String copy) {
        var copies = oneCopy.all(rule, slot);
        if (copy != null || copies.isEmpty())
            return seen(previewing.run(rule, ruleId, slot, oneCopy.of(rule, slot, copy)));
        var all = new ArrayList<CopyPreview>();
        PreviewResult shown = null;
        RefusedException refused = null;
        for (var each : copies) {
            try {
                var seen = previewing.inWords(() -> seen(previewing.run(rule, ruleId, slot, each)));
                all.add(new CopyPreview(each.key(), each.to(), seen.exceptions(), seen.wouldReport(), null));
                if (shown == null || (shown.wouldReport() == 0 && seen.wouldReport() > 0)) shown = seen;
            } catch (RefusedException failed) {
                refused = failed;
                all.add(new CopyPreview(each.key(), each.to(), 0, 0, failed.getMessage()));
            }
        }
        if (shown == null) throw Objects.requireNonNull(refused);
        return shown.with(all);
    }

    /**
     * The same of a document that is not saved, against the memory of the rule of its name.
     *
     * @throws InvalidDefinitionException with every problem of the document
     */
    public DraftPreview runDraft(Person by, String document, Instant slot) {
        var draft = checkedDrafts.rule(document);
        var active = definitions.rule(draft.name());
        audit.record(db, by.id(), AuditAct.PREVIEW_DRAFT, draft.name(), RunWords.cut(document));
        return previewing.inWords(() -> {
            var id = active.map(Current::ruleId).orElse(null);
            var seen = seen(draft, id, slot, null);
            if (active.isEmpty()) return new DraftPreview(seen, null);
            var rule = active.get().definition();
            // What a personal copy finds is held against what the same copy finds now, if there is one.
            boolean sameCopies = Objects.equals(rule.copies(), draft.copies());
            if (!sameCopies) return new DraftPreview(seen, null);
            var copy = oneCopy.of(draft, slot, seen.copy());
            try (var run = previewing.run(draft, id, slot, copy);
                    var saved = previewing.run(rule, id, slot, copy)) {
                return new DraftPreview(seen, compared(run.evaluation(), saved.evaluation(), draft.zone()));
            }
        });
    }

    static PreviewComparison compared(Evaluation draft, Evaluation active, ZoneId zone) {
        var onlyActive = new HashMap<Digest, Severity>();
        active.exceptions().forEach(evaluatedRow -> onlyActive.put(evaluatedRow.key(), evaluatedRow.severity()));
        long[] both = {0, 0, 0};
        var draftNames = new ArrayList<String>();
        draft.exceptions().forEach(evaluatedRow -> {
            if (onlyActive.containsKey(evaluatedRow.key())) {
                both[0]++;
                if (onlyActive.remove(evaluatedRow.key()) != evaluatedRow.severity()) both[2]++;
            } else if (both[1]++ < MOST_ROWS_SHOWN) draftNames.add(CellText.joined(evaluatedRow.identity(), zone));
        });
        var activeNames = new ArrayList<String>();
        active.exceptions().forEach(onlyActive::containsKey, evaluatedRow -> {
            if (activeNames.size() < MOST_ROWS_SHOWN) activeNames.add(CellText.joined(evaluatedRow.identity(), zone));
        });
        return new PreviewComparison(both[0], both[2], both[1], draftNames, onlyActive.size(), activeNames);
    }

    private List<PreviewAudience> recipients(PreviewRun run, ReportPlan choice) {
        var split = run.rule().delivery().split();
        var hearing = choice.parts().stream()
                .filter(part -> !part.updates().isEmpty())
                .toList();
        if (hearing.isEmpty()) return List.of();
        var named = split == null ? Map.<String, List<String>>of() : addresses.of(run.rule(), run.moment(), split);
        var others = run.context().to();
        return hearing.stream()
                .map(part -> {
                    var to = split == null
                            ? List.<String>of()
                            : addresses.recipientsOf(named, run.context(), part, run.evaluation());
                    return new PreviewAudience(
                            part.audience().split(),
                            to.isEmpty() ? others : to,
                            part.updates().size());
                })
                .sorted(Comparator.comparing(PreviewAudience::split, Comparator.nullsFirst(Comparator.naturalOrder())))
                .toList();
    }

    private PreviewResult seen(PreviewRun run) {
        try (run) {
            var evaluation = run.evaluation();
            var choice = reportPlanner.choose(evaluation, run.audiences());
            var rows = evaluation.rows(run.labels());
            boolean plain = run.rule().isPlainReport();
            Map<Severity, Long> bySeverity =
                    plain ? Map.of() : evaluation.exceptions().bySeverity();
            return new PreviewResult(
                    run.moment().slot(),
                    evaluation.reading().rows(),
                    run.took().toMillis(),
                    plain,
                    evaluation.exceptions().count(),
                    bySeverity,
                    SeverityLook.of(run.rule(), bySeverity.keySet()),
                    evaluation.evaluator().unknownRows(),
                    run.rule().groups() != null,
                    PartCount.of(evaluation),
                    UnknownRowsSuggestion.of(evaluation),
                    evaluation.warnings(),
                    evaluation.evaluator().unevaluated().size(),
                    UnevaluatedGroup.first(evaluation, run.moment()),
                    choice.updates().size(),
                    recipients(run, choice),
                    rows.columns().stream()
                            .map(column -> new PreviewColumn(
                                    column.name(), column.label(), column.type().code()))
                            .toList(),
                    shown(run, choice, rows),
                    plain || evaluation.exceptions().count() > 0 ? List.of() : nearest(run),
                    run.copy() == null ? null : run.copy().key(),
                    List.of());
        }
    }

    private static List<PreviewRow> shown(PreviewRun run, ReportPlan choice, ExtractRows rows) {
        var evaluation = run.evaluation();
        var kinds = new HashMap<Digest, Set<UpdateKind>>();
        choice.updates().forEach(item -> kinds.put(item.subject().key(), item.kinds()));
        var worstFirst = worstFirst(evaluation.exceptions(), rows.worstFirst());
        var columns = rows.columns();
        return worstFirst.stream()
                .limit(MOST_ROWS_SHOWN)
                .map(evaluatedRow -> {
                    var row = rows.standing(evaluatedRow);
                    var news = kinds.getOrDefault(evaluatedRow.key(), Set.of()).stream()
                            .sorted()
                            .map(UpdateKind::code)
                            .toList();
                    var cells = new ArrayList<PreviewCell>();
                    for (int i = 0; i < row.cells().size(); i++) {
                        var cell = row.cells().get(i);
                        cells.add(new PreviewCell(text(cell.value(), columns.get(i), run), cell.marked(), cell.link()));
                    }
                    return new PreviewRow(
                            row.severity(), SeverityLook.ofNullable(run.rule(), row.severity()), news, cells);
                })
                .toList();
    }

    private static List<PreviewExtreme> nearest(PreviewRun run) {
        var evaluator = run.evaluation().evaluator();
        return evaluator.extremes().stream()
                .map(extreme -> {
                    String column =
                            evaluator.columns().at(extreme.of().column()).name();
                    var label = run.labels().column(column);
                    Object value = Objects.requireNonNull(Numbers.readable(extreme.value()));
                    String text = run.labels().value(column, value, run.moment().zone());
                    return new PreviewExtreme(
                            column,
                            label.text(),
                            extreme.of().largestFirst(),
                            label.unit() == null ? text : text + " " + label.unit());
                })
                .toList();
    }

    /** A code with its word, since conditions compare the code. */
    private static @Nullable String text(@Nullable Object value, Extract.Column column, PreviewRun run) {
        if (value == null) return null;
        String text = CellText.brief(value, run.moment().zone());
        String word = CellWords.word(column, value, run.moment().zone());
        return word == null ? text : word + " (" + text + ")";
    }

    /** The worst so many. */
    private static List<EvaluatedRow> worstFirst(SeenRows exceptions, Comparator<EvaluatedRow> worstFirst) {
        var worst = new ArrayList<EvaluatedRow>();
        exceptions.forEach(evaluatedRow -> {
            worst.add(evaluatedRow);
            if (worst.size() >= 2 * MOST_ROWS_SHOWN) keepWorst(worst, worstFirst);
        });
        keepWorst(worst, worstFirst);
        return worst;
    }

    private static void keepWorst(List<EvaluatedRow> worst, Comparator<EvaluatedRow> worstFirst) {
        worst.sort(worstFirst);
        if (worst.size() > MOST_ROWS_SHOWN)
            worst.subList(MOST_ROWS_SHOWN, worst.size()).clear();
    }
}
