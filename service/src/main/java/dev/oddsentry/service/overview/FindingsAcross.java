package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;
import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.HANDLING;
import static org.jooq.impl.DSL.and;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.exists;
import static org.jooq.impl.DSL.noCondition;
import static org.jooq.impl.DSL.not;
import static org.jooq.impl.DSL.selectOne;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.RuleLabels;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.FindingRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.handling.FindingHandling;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.Labels;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.layouts.SeverityLook;
import dev.oddsentry.service.memory.FindingPlace;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Findings over all rules, worst and newest first. */
@Component
public class FindingsAcross {
    private static final int MOST_LISTED = 200;
    private static final int MOST_CELLS = 5;

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Layouts layouts;
    private final Labels labels;
    private final FindingHandling marking;
    private final Visibility visibility;
    private final VisibleDefinitions visible;

    FindingsAcross(
            DSLContext db,
            DefinitionStore definitions,
            Layouts layouts,
            Labels labels,
            FindingHandling marking,
            VisibleDefinitions visible,
            Visibility visibility) {
        this.visibility = visibility;
        this.visible = visible;
        this.db = db;
        this.definitions = definitions;
        this.layouts = layouts;
        this.labels = labels;
        this.marking = marking;
    }

    /** Who has done what with a finding. */
    public enum HandledBy {
        BY_NOBODY,
        TAKEN,
        SNOOZED,
        ACCEPTED;

        private @Nullable Condition condition() {
            return switch (this) {
                case BY_NOBODY -> not(stands(noCondition()));
                case TAKEN -> stands(HANDLING.KIND.eq(Marks.Kind.TAKE));
                case SNOOZED -> stands(HANDLING.KIND.eq(Marks.Kind.SNOOZE));
                case ACCEPTED -> stands(HANDLING.KIND.eq(Marks.Kind.ACCEPT));
            };
        }

        private static Condition stands(Condition kind) {
            return exists(selectOne()
                    .from(HANDLING)
                    .where(HANDLING.FINDING_ID.eq(FINDING.ID), HANDLING.ENDED_AT.isNull(), kind));
        }
    }

    /**
     * @param state null for those that have not cleared
     * @param sought in identity, row, or rule
     * @param after where the page before ended; null for the first
     */
    public record Ask(
            @Nullable FindingState state,
            @Nullable Severity severity,
            @Nullable HandledBy handling,
            @Nullable String rule,
            String sought,
            @Nullable String after) {}

    /** @param link where the value leads; null for nowhere */
    record FindingCell(
            String label, @Nullable String text, @Nullable String link) {}

    /** @param look how the rule names and colours the severity */
    record FindingSummary(
            long id,
            String rule,
            String title,
            @Nullable String copy,
            String identity,
            FindingState state,
            Severity severity,
            SeverityLook look,
            Instant openedAt,
            Instant changedAt,
            boolean noData,
            List<FindingHandling.HandlingEntry> handling,
            List<FindingCell> cells) {}

    /**
     * @param byRule how many of them each rule has, by its name
     * @param next to be given as {@code after} for the next page; null on the last
     */
    public record FindingSummaryList(
            long total,
            Map<String, Integer> byRule,
            List<FindingSummary> findings,
            @Nullable String next) {}

    public FindingSummaryList list(Ask ask) {
        var rules = new HashMap<RuleId, Current<RuleDefinition>>();
        layouts.resolved(visible.rules()).forEach(rule -> rules.put(rule.ruleId(), rule));
        var which = condition(ask);
        var byRule = db.select(DEFINITION.NAME, count())
                .from(FINDING)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(FINDING.RULE_ID.coerce(DEFINITION.ID)))
                .where(which)
                .groupBy(DEFINITION.NAME)
                .orderBy(count().desc())
                .fetchMap(DEFINITION.NAME, row -> row.value2());
        var findings = db.select(FINDING.fields())
                .from(FINDING)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(FINDING.RULE_ID.coerce(DEFINITION.ID)))
                .where(which, FindingPlace.behind(ask.after()))
                .orderBy(FindingPlace.order())
                .limit(MOST_LISTED)
                .fetchInto(FINDING);
        var marks = marking.of(findings.getValues(FINDING.ID));
        var known = new HashMap<RuleId, RuleLabels>();
        var found = findings.stream()
                .filter(finding -> rules.containsKey(finding.getRuleId()))
                .map(finding -> found(
                        finding,
                        Objects.requireNonNull(rules.get(finding.getRuleId())),
                        marks.getOrDefault(finding.getId(), List.of()),
                        known))
                .toList();
        long total = byRule.values().stream().mapToLong(Integer::longValue).sum();
        return new FindingSummaryList(total, byRule, found, FindingPlace.next(findings, MOST_LISTED));
    }

    /** The numbers of those that match, at most so many. */
    public List<Long> ids(Ask ask, int most) {
        return db.select(FINDING.ID)
                .from(FINDING)
                .join(DEFINITION)
                .on(DEFINITION.ID.eq(FINDING.RULE_ID.coerce(DEFINITION.ID)))
                .where(condition(ask))
                .limit(most)
                .fetch(FINDING.ID);
    }

    private Condition condition(Ask ask) {
        String sought = ask.sought().strip();
        return and(
                DEFINITION.RETIRED_AT.isNull(),
                visibility.now().rules(FINDING.RULE_ID),
                ask.state() == null ? FINDING.STATE.ne(FindingState.CLEARED) : FINDING.STATE.eq(ask.state()),
                ask.severity() == null ? noCondition() : FINDING.SEVERITY.eq(ask.severity()),
                ask.handling() == null ? noCondition() : ask.handling().condition(),
                ask.rule() == null ? noCondition() : DEFINITION.NAME.eq(ask.rule()),
                sought.isEmpty()
                        ? noCondition()
                        : FINDING.IDENTITY
                                .cast(String.class)
                                .containsIgnoreCase(sought)
                                .or(FINDING.ROW.cast(String.class).containsIgnoreCase(sought))
                                .or(DEFINITION.NAME.containsIgnoreCase(sought)));
    }

    private FindingSummary found(
            FindingRecord finding,
            Current<RuleDefinition> of,
            List<FindingHandling.HandlingEntry> marks,
            Map<RuleId, RuleLabels> known) {
        var rule = of.definition();
        return new FindingSummary(
                finding.getId(),
                rule.name(),
                rule.title(),
                finding.getCopyKey(),
                CellText.joined(Json.cells(finding.getIdentity()), rule.zone()),
                finding.getState(),
                finding.getSeverity(),
                SeverityLook.of(rule, finding.getSeverity()),
                finding.getOpenedAt(),
                finding.getChangedAt(),
                finding.getNoData(),
                marks,
                cells(finding, rule, known.computeIfAbsent(of.ruleId(), _ -> labels.of(rule))));
    }

    private static Collection<String> names(RuleDefinition rule, Collection<String> all) {
        var chosen = rule.delivery().layout().columnNames();
        if (!chosen.isEmpty()) return chosen;
        if (rule.groups() == null) return all;
        var names = new ArrayList<>(rule.groups().per());
        names.addAll(rule.groups().measures().keySet());
        return names;
    }

    /** The first columns of the layout; of a rule without one, of the row. */
    private static List<FindingCell> cells(FindingRecord finding, RuleDefinition rule, RuleLabels labels) {
        var row = Json.row(finding.getRow());
        var names = names(rule, row.keySet());
        var cells = new ArrayList<FindingCell>();
        for (String name : names) {
            if (!row.containsKey(name)) continue;
            if (cells.size() == MOST_CELLS) break;
            boolean measured = rule.groups() != null && !rule.groups().per().contains(name);
            Object cell = measured ? Numbers.readable(row.get(name)) : row.get(name);
            var label = labels.column(name);
            String text = cell == null ? null : labels.value(name, cell, rule.zone());
            cells.add(new FindingCell(
                    label.text(),
                    text == null || label.unit() == null ? text : text + " " + label.unit(),
                    text == null ? null : labels.link(name, row::get, rule.zone())));
        }
        return cells;
    }
}
