package dev.oddsentry.service.api.findings;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.LAST_REPORT;
import static org.jooq.impl.DSL.noCondition;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.handling.FindingHandling;
import dev.oddsentry.service.layouts.Labels;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.layouts.SeverityLook;
import dev.oddsentry.service.memory.FindingPlace;
import dev.oddsentry.service.rules.RuleNames;
import java.time.Instant;
import java.time.ZoneId;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jooq.DSLContext;
import org.jooq.impl.DSL;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** A rule's findings as lists show them. */
@RestController
@RequestMapping(path = "/api/rules/{name}/findings", produces = "application/json")
class FindingController {
    private static final int MOST_LISTED = 1_000;

    private final DSLContext db;
    private final RuleNames names;
    private final DefinitionStore definitions;
    private final Layouts layouts;
    private final Labels labels;
    private final FindingHandling marking;

    FindingController(
            DSLContext db,
            RuleNames names,
            DefinitionStore definitions,
            Layouts layouts,
            Labels labels,
            FindingHandling marking) {
        this.db = db;
        this.names = names;
        this.definitions = definitions;
        this.layouts = layouts;
        this.labels = labels;
        this.marking = marking;
    }

    /**
     * @param copy whose personal copy found it; null where the rule has none
     * @param identity the key in words
     * @param unreported whether an update waits for a later check
     * @param look how the rule names and colours the severity
     * @param row its last row, by column name as people read it; null where a value is missing
     * @param links where values of its row lead, by column name; none for those that lead nowhere
     * @param reportedAt the slot it was last reported at, or, if it never was, let pass at; null if neither
     */
    record FindingView(
            long id,
            @Nullable String copy,
            String identity,
            FindingState state,
            Severity severity,
            SeverityLook look,
            Instant openedAt,
            Instant changedAt,
            @Nullable Instant reportedAt,
            boolean noData,
            boolean unreported,
            List<FindingHandling.HandlingEntry> handling,
            Map<String, @Nullable String> row,
            Map<String, String> links) {}

    record FindingColumn(String name, String label, String type) {}

    /**
     * @param columns in the order of the rule's layout
     * @param next to be given as {@code after} for the next page; null on the last
     */
    record FindingList(
            long total,
            List<FindingColumn> columns,
            List<FindingView> findings,
            @Nullable String next) {}

    /**
     * @param state only findings in this state; all if absent
     * @param after where the page before ended
     */
    @GetMapping
    FindingList listFindingsOfRule(
            @PathVariable String name,
            @RequestParam(required = false) @Nullable FindingState state,
            @RequestParam(required = false) @Nullable String after) {
        var rule = layouts.resolved(definitions.rule(names.idOf(name)).orElseThrow());
        var called = labels.of(rule.definition());
        var which = FINDING.RULE_ID.eq(rule.ruleId()).and(state == null ? noCondition() : FINDING.STATE.eq(state));
        var reportedAt = DSL.field(DSL.select(DSL.coalesce(DSL.max(LAST_REPORT.REPORTED_AT), DSL.max(LAST_REPORT.AT)))
                .from(LAST_REPORT)
                .where(LAST_REPORT.FINDING_ID.eq(FINDING.ID)));
        var findings = db.select(FINDING.asterisk(), reportedAt)
                .from(FINDING)
                .where(which, FindingPlace.behind(after))
                .orderBy(FindingPlace.order())
                .limit(MOST_LISTED)
                .fetch();
        var marks = marking.of(findings.getValues(FINDING.ID));
        var views = findings.map(row -> view(
                row.into(FINDING),
                row.get(reportedAt),
                marks.getOrDefault(row.get(FINDING.ID), List.of()),
                rule.definition(),
                called));
        return new FindingList(
                db.fetchCount(FINDING, which),
                columns(rule.definition(), called),
                views,
                FindingPlace.next(findings.into(FINDING), MOST_LISTED));
    }

    private static FindingView view(
            FindingRecord finding,
            @Nullable Instant reportedAt,
            List<FindingHandling.HandlingEntry> marks,
            RuleDefinition rule,
            RuleLabels labels) {
        ZoneId zone = rule.zone();
        var groups = rule.groups();
        String identity = CellText.joined(Json.cells(finding.getIdentity()), zone);
        var row = new LinkedHashMap<String, @Nullable String>();
        var links = new LinkedHashMap<String, String>();
        var last = Json.row(finding.getRow());
        last.forEach((column, cell) -> {
            boolean measured = groups != null && !groups.per().contains(column);
            Object shown = measured ? Numbers.readable(cell) : cell;
            row.put(column, shown == null ? null : labels.value(column, shown, zone));
            String link = shown == null ? null : labels.link(column, last::get, zone);
            if (link != null) links.put(column, link);
        });
        return new FindingView(
                finding.getId(),
                finding.getCopyKey(),
                identity,
                finding.getState(),
                finding.getSeverity(),
                SeverityLook.of(rule, finding.getSeverity()),
                finding.getOpenedAt(),
                finding.getChangedAt(),
                finding.getOpeningAudience() == null ? reportedAt : finding.getOpenedAt(),
                finding.getNoData(),
                finding.getUnreported(),
                marks,
                row,
                links);
    }

    private List<FindingColumn> columns(RuleDefinition rule, RuleLabels labels) {
        var query = definitions.query(rule.query()).orElseThrow();
        var conditions = CheckedRule.check(rule, definitions.columns(query), labels.thresholds(), null)
                .conditions();
        var known = conditions.columns();
        var names = rule.delivery().layout().columnNames().isEmpty()
                ? conditions.shown()
                : rule.delivery().layout().columnNames();
        return names.stream()
                .map(name -> {
                    var label = labels.column(name);
                    String text = label.unit() == null ? label.text() : label.text() + " (" + label.unit() + ")";
                    return new FindingColumn(
                            name, text, known.at(known.require(name)).type().code());
                })
                .toList();
    }
}
