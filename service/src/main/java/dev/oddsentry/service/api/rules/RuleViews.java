package dev.oddsentry.service.api.rules;

import static dev.oddsentry.service.db.generated.Tables.FINDING;
import static dev.oddsentry.service.db.generated.Tables.RULE;
import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;
import static dev.oddsentry.service.db.generated.Tables.RULE_DRAFT;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.rowNumber;
import static org.jooq.impl.DSL.select;

import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.definition.ScheduleWords;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.service.authoring.Drafts;
import dev.oddsentry.service.db.generated.tables.records.RuleRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.Labels;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.layouts.SeverityLook;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.time.Clock;
import java.time.Instant;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jooq.DSLContext;
import org.jooq.Record;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Rules as lists and pages show them. */
@Component
class RuleViews {
    private static final int STRIP = 20;
    private static final int NEXT_DATES = 5;

    private final DSLContext db;
    private final DefinitionStore definitions;
    private final Drafts drafts;
    private final Layouts layouts;
    private final Labels labels;
    private final Schedules schedules;
    private final Clock clock;
    private final VisibleDefinitions visible;

    RuleViews(
            DSLContext db,
            DefinitionStore definitions,
            Drafts drafts,
            Layouts layouts,
            Labels labels,
            Schedules schedules,
            Clock clock,
            VisibleDefinitions visible) {
        this.visible = visible;
        this.db = db;
        this.definitions = definitions;
        this.drafts = drafts;
        this.layouts = layouts;
        this.labels = labels;
        this.schedules = schedules;
        this.clock = clock;
    }

    /** A check as a dot in a strip. */
    record LatestCheck(
            CheckId id,
            Instant slot,
            CheckState state,
            @Nullable Integer updates,
            @Nullable Severity worst,
            @Nullable Long exceptions,
            @Nullable String reason,
            @Nullable Instant retryAt) {
        static LatestCheck of(Record row) {
            return new LatestCheck(
                    row.get(RULE_CHECK.ID),
                    row.get(RULE_CHECK.SLOT),
                    row.get(RULE_CHECK.STATE),
                    row.get(RULE_CHECK.UPDATES),
                    row.get(RULE_CHECK.WORST_UPDATE),
                    row.get(RULE_CHECK.EXCEPTIONS),
                    row.get(RULE_CHECK.REASON),
                    row.get(RULE_CHECK.RETRY_AT));
        }
    }

    /**
     * @param mode what it sends: updates, all open findings, or its rows
     * @param looks how the rule names and colours the severities of {@code open}
     * @param ended whether it is active, and its schedule, which alone begins its checks, has no more dates
     * @param named everyone that the rule itself names: addresses and teams
     * @param draft whether an edit lies beside it
     * @param schedule when it is checked, in plain English
     * @param formats of the files that go with its messages
     * @param splitBy the column by whose values its recipients are split; null for none
     * @param latest the last twenty checks, newest first
     */
    record RuleSummary(
            String name,
            String title,
            String owner,
            RuleState state,
            int revision,
            RuleDefinition.Mode mode,
            String zone,
            Map<Severity, Integer> open,
            Map<Severity, SeverityLook> looks,
            @Nullable Instant nextSlot,
            boolean ended,
            List<String> to,
            Set<String> named,
            List<String> labels,
            @Nullable String copiedFrom,
            String query,
            String source,
            List<String> columns,
            Set<String> thresholds,
            boolean draft,
            String schedule,
            List<String> formats,
            @Nullable String splitBy,
            List<LatestCheck> latest) {}

    /** @param draft the edit that lies beside the rule; null for none */
    record RulePage(
            RuleSummary rule,
            RuleText text,
            List<Instant> nextDates,
            @Nullable DraftNote draft) {}

    /** @param outdated whether the rule was saved since the draft was made */
    record DraftNote(int version, String author, Instant at, boolean outdated) {}

    /**
     * What a rule says, in its own words; the sentence is its condition in plain English.
     *
     * @param sql of its query; null for those who do not see the query
     * @param visibleTo the teams that see it, with its owner; empty where everybody does
     * @param openAfter how long an exception is pending before it opens; null where the first check decides
     * @param clearAfter how long a finding must be missed before it clears; null where the first check decides
     */
    record RuleText(
            String query,
            String queryTitle,
            String source,
            @Nullable String sql,
            Map<String, String> parameters,
            List<String> per,
            boolean grouped,
            @Nullable String exceptions,
            String sentence,
            @Nullable String fireWhen,
            @Nullable String fireSentence,
            @Nullable String openAfter,
            @Nullable String clearAfter,
            List<String> thresholds,
            List<SeverityLevelText> severity,
            RuleDefinition.Mode mode,
            List<String> key,
            List<String> report,
            String schedule,
            @Nullable SplitText split,
            @Nullable PersonalCopiesText copies,
            List<String> visibleTo) {}

    /** @param address the column with the addresses of the copy */
    record PersonalCopiesText(String from, String key, String address) {}

    /** @param from the query that says who hears, besides those named; null for none */
    record SplitText(
            String by,
            Map<String, List<String>> to,
            @Nullable String from) {}

    /**
     * @param look how the rule names and colours it
     * @param sentence the condition in plain English; null in the last band
     */
    record SeverityLevelText(
            Severity severity,
            SeverityLook look,
            @Nullable String condition,
            @Nullable String sentence) {}

    List<RuleSummary> all() {
        return summaries(layouts.resolved(visible.rules()));
    }

    RulePage page(String name) {
        var rule = layouts.resolved(definitions.rule(name).orElseThrow());
        return new RulePage(
                summaries(List.of(rule)).getFirst(),
                text(rule.definition()),
                schedules.of(rule.definition()).next(NEXT_DATES, clock.instant()),
                drafts.of(rule)
                        .map(draft -> new DraftNote(
                                draft.version(), draft.author(), draft.at(), draft.baseRevision() != rule.revision()))
                        .orElse(null));
    }

    private RuleText text(RuleDefinition rule) {
        var query = definitions.query(rule.query()).orElseThrow().definition();
        Map<String, String> parameters = new HashMap<>();
        query.parameters().forEach((name, declared) -> parameters.put(name, String.valueOf(declared.defaultValue())));
        parameters.putAll(rule.parameters());
        if (rule.copies() != null)
            rule.copies().parameters().forEach((name, column) -> parameters.put(name, "the copy's " + column));
        var called = labels.of(rule);
        return new RuleText(
                query.name(),
                query.title(),
                query.source(),
                visible.query(query.name()).isPresent() ? query.sql() : null,
                parameters,
                rule.groups() == null ? List.of() : rule.groups().per(),
                rule.groups() != null,
                rule.exceptions(),
                (rule.isPlainReport() ? "sends " : "") + called.exceptions(rule.exceptions()),
                rule.fireWhen(),
                rule.fireWhen() == null ? null : called.sentence(rule.fireWhen()),
                words(rule.memory().openAfter()),
                words(rule.memory().clearAfter()),
                List.copyOf(rule.thresholdsUsed()),
                rule.severity().stream()
                        .map(band -> new SeverityLevelText(
                                band.severity(),
                                SeverityLook.of(rule, band.severity()),
                                band.condition(),
                                band.condition() == null ? null : called.sentence(band.condition())))
                        .toList(),
                rule.memory().mode(),
                rule.key(),
                rule.memory().report().stream()
                        .sorted()
                        .map(kind -> kind.code())
                        .toList(),
                ScheduleWords.of(rule),
                split(rule.delivery()),
                rule.copies() == null
                        ? null
                        : new PersonalCopiesText(
                                rule.copies().from(),
                                rule.copies().key(),
                                rule.copies().address()),
                rule.visibleTo());
    }

    private static @Nullable SplitText split(DeliveryDefinition delivery) {
        var split = delivery.split();
        return split == null ? null : new SplitText(split.by(), split.to(), split.from());
    }

    private static @Nullable String words(MinimumDuration patience) {
        return patience.equals(MinimumDuration.NONE) ? null : patience.text();
    }

    private List<RuleSummary> summaries(List<Current<RuleDefinition>> rules) {
        var ids = rules.stream().map(Current::ruleId).toList();
        var states = db.selectFrom(RULE).where(RULE.ID.in(ids)).fetchMap(RULE.ID);
        var open = open(ids);
        var latest = latest(ids);
        var queries = watched(rules);
        var drafted = db.select(RULE_DRAFT.RULE_ID)
                .from(RULE_DRAFT)
                .where(RULE_DRAFT.RULE_ID.in(ids))
                .fetchSet(RULE_DRAFT.RULE_ID);
        return rules.stream()
                .map(rule -> summary(
                        rule,
                        Objects.requireNonNull(states.get(rule.ruleId())),
                        Objects.requireNonNull(queries.get(rule.definition().query())),
                        drafted.contains(rule.ruleId()),
                        open,
                        latest))
                .toList();
    }

    private RuleSummary summary(
            Current<RuleDefinition> rule,
            RuleRecord state,
            Watched watched,
            boolean drafts,
            Map<RuleId, Map<Severity, Integer>> open,
            Map<RuleId, List<LatestCheck>> latest) {
        RuleDefinition definition = rule.definition();
        var found = open.getOrDefault(rule.ruleId(), Map.of());
        return new RuleSummary(
                definition.name(),
                definition.title(),
                definition.owner(),
                state.getState(),
                rule.revision(),
                definition.memory().mode(),
                definition.zone().getId(),
                found,
                SeverityLook.of(definition, found.keySet()),
                state.getNextSlot(),
                state.getState() == RuleState.ACTIVE
                        && state.getNextSlot() == null
                        && !definition.schedule().isOnDemandOnly()
                        && !definition.triggers().startsChecks(),
                definition.delivery().to(),
                definition.delivery().named(),
                definition.filing().labels(),
                definition.filing().copiedFrom(),
                definition.query(),
                watched.source(),
                watched.columns(),
                definition.thresholdsUsed(),
                drafts,
                ScheduleWords.of(definition),
                definition.delivery().attachments().stream()
                        .map(each -> each.format().code())
                        .distinct()
                        .toList(),
                definition.delivery().split() == null
                        ? null
                        : definition.delivery().split().by(),
                latest.getOrDefault(rule.ruleId(), List.of()));
    }

    /** What a rule's query reads and returns, read once for all its rules. */
    private record Watched(String source, List<String> columns) {}

    private Map<String, Watched> watched(List<Current<RuleDefinition>> rules) {
        var names = rules.stream().map(rule -> rule.definition().query()).collect(Collectors.toSet());
        return definitions.queries().stream()
                .filter(query -> names.contains(query.definition().name()))
                .collect(Collectors.toMap(
                        query -> query.definition().name(),
                        query -> new Watched(
                                query.definition().source(),
                                definitions.columns(query).names())));
    }

    private Map<RuleId, Map<Severity, Integer>> open(List<RuleId> ids) {
        var open = new HashMap<RuleId, Map<Severity, Integer>>();
        db.select(FINDING.RULE_ID, FINDING.SEVERITY, count())
                .from(FINDING)
                .where(FINDING.RULE_ID.in(ids), FINDING.STATE.eq(FindingState.OPEN))
                .groupBy(FINDING.RULE_ID, FINDING.SEVERITY)
                .forEach(row -> open.computeIfAbsent(row.value1(), _ -> new EnumMap<>(Severity.class))
                        .put(row.value2(), row.value3()));
        return open;
    }

    private Map<RuleId, List<LatestCheck>> latest(List<RuleId> ids) {
        var place = rowNumber()
                .over()
                .partitionBy(RULE_CHECK.RULE_ID)
                .orderBy(RULE_CHECK.SLOT.desc())
                .as("place");
        var ranked = select(RULE_CHECK.ID, place)
                .from(RULE_CHECK)
                .where(RULE_CHECK.RULE_ID.in(ids))
                .asTable("ranked");
        return db.select(
                        RULE_CHECK.RULE_ID,
                        RULE_CHECK.ID,
                        RULE_CHECK.SLOT,
                        RULE_CHECK.STATE,
                        RULE_CHECK.UPDATES,
                        RULE_CHECK.WORST_UPDATE,
                        RULE_CHECK.EXCEPTIONS,
                        RULE_CHECK.REASON,
                        RULE_CHECK.RETRY_AT)
                .from(RULE_CHECK)
                .join(ranked)
                .on(RULE_CHECK.ID.eq(ranked.field(RULE_CHECK.ID)))
                .where(Objects.requireNonNull(ranked.field(place)).le(STRIP))
                .orderBy(RULE_CHECK.SLOT.desc())
                .fetchGroups(RULE_CHECK.RULE_ID, LatestCheck::of);
    }
}
