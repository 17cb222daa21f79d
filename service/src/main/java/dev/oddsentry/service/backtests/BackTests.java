package dev.oddsentry.service.backtests;

import dev.oddsentry.core.definition.MemoryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.authoring.CheckedDrafts;
import dev.oddsentry.service.copies.CopyLookup;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.web.RefusedException;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Takes asks for long work, and refuses what could not answer. */
@Component
public class BackTests {
    private final WorkStore store;
    private final LongWork work;
    private final DefinitionStore definitions;
    private final CheckedDrafts drafts;
    private final CopyLookup oneCopy;
    private final ThresholdStore thresholds;
    private final Audit audit;
    private final DSLContext db;
    private final Clock clock;

    BackTests(
            WorkStore store,
            LongWork work,
            DefinitionStore definitions,
            CheckedDrafts drafts,
            CopyLookup oneCopy,
            ThresholdStore thresholds,
            Audit audit,
            DSLContext db,
            Clock clock) {
        this.store = store;
        this.work = work;
        this.definitions = definitions;
        this.drafts = drafts;
        this.oneCopy = oneCopy;
        this.thresholds = thresholds;
        this.audit = audit;
        this.db = db;
        this.clock = clock;
    }

    /**
     * @param thresholds values on trial, by name
     * @param conditions on trial in place of the rule's; not together with thresholds
     * @param without settings of the memory that are left out, one at a time; alone; null in what was asked before there were such
     * @param document of a draft; null for the rule as it is saved
     * @param copy the key of the personal copy that is asked about; null where the rule has none
     */
    record Ask(
            Instant from,
            Instant to,
            Map<String, List<BigDecimal>> thresholds,
            @Nullable List<String> conditions,
            @Nullable List<MemoryDefinition.Setting> without,
            @Nullable String document,
            @Nullable String copy) {
        List<Variant> variants() {
            if (without != null && !without.isEmpty()) return Variant.ofSettings(without);
            return conditions == null || conditions.isEmpty()
                    ? Variant.of(thresholds)
                    : Variant.ofConditions(conditions);
        }
    }

    /**
     * What is on trial.
     *
     * @param thresholds values by name
     * @param conditions in place of the rule's
     * @param without settings of the memory that are left out, one at a time
     */
    public record OnTrial(
            Map<String, List<BigDecimal>> thresholds, List<String> conditions, List<MemoryDefinition.Setting> without) {
        static final OnTrial NOTHING = new OnTrial(Map.of(), List.of(), List.of());

        private long kinds() {
            return Stream.of(thresholds.isEmpty(), conditions.isEmpty(), without.isEmpty())
                    .filter(isEmpty -> !isEmpty)
                    .count();
        }
    }

    /** @throws RefusedException if a back-test of this rule would say nothing true */
    @Transactional
    public UUID backTest(
            Person by, RuleId ruleId, int days, OnTrial onTrial, @Nullable String document, @Nullable String copy) {
        var rule = document == null ? definitions.rule(ruleId).orElseThrow().definition() : drafts.rule(document);
        return backTest(by, ruleId, rule, days, onTrial, document, copy);
    }

    /**
     * Of a rule that need not be saved.
     *
     * @throws RefusedException if a back-test of this rule would say nothing true
     */
    @Transactional
    public UUID backTest(Person by, int days, OnTrial onTrial, String document, @Nullable String copy) {
        return backTest(by, null, drafts.rule(document), days, onTrial, document, copy);
    }

    private UUID backTest(
            Person by,
            @Nullable RuleId ruleId,
            RuleDefinition written,
            int days,
            OnTrial onTrial,
            @Nullable String document,
            @Nullable String copy) {
        var rule = asked(written, copy);
        refuseWithoutMeaning(rule);
        var used = thresholds.named(rule.thresholdsUsed());
        if (onTrial.kinds() > 1)
            throw RefusedException.invalid("Try thresholds, conditions or settings of the memory, one kind at a time.");
        Variant.of(onTrial.thresholds()).forEach(variant -> variant.in(used));
        Variant.ofConditions(onTrial.conditions()).forEach(variant -> work.conditions(variant.of(rule)));
        return plan(by, ruleId, rule, WorkStore.Kind.BACK_TEST, days, onTrial, document, copy);
    }

    /** @throws RefusedException if the rule measures nothing, or its query asks the same at every slot */
    @Transactional
    public UUID fillHistory(Person by, RuleId ruleId, int days, @Nullable String copy) {
        var rule = asked(definitions.rule(ruleId).orElseThrow().definition(), copy);
        if (rule.groups() == null)
            throw RefusedException.invalid("The rule evaluates rows, so it has no measurements.");
        refuseWithoutMeaning(rule);
        return plan(by, ruleId, rule, WorkStore.Kind.FILL_HISTORY, days, OnTrial.NOTHING, null, copy);
    }

    private UUID plan(
            Person by,
            @Nullable RuleId ruleId,
            RuleDefinition rule,
            WorkStore.Kind kind,
            int days,
            OnTrial onTrial,
            @Nullable String document,
            @Nullable String copy) {
        Instant to = clock.instant();
        var ask = new Ask(
                to.minus(Duration.ofDays(days)),
                to,
                onTrial.thresholds(),
                onTrial.conditions(),
                onTrial.without(),
                document,
                copy);
        PastSlots.of(
                rule,
                work.schedule(rule, ask.from()),
                ask.from(),
                ask.to(),
                work.conditions(rule).needs().values());
        UUID id = UUID.randomUUID();
        store.insert(id, kind, ruleId, by.id(), ask);
        work.plan(id);
        var act = kind == WorkStore.Kind.BACK_TEST ? AuditAct.BACK_TEST : AuditAct.BACKFILL;
        audit.record(db, by.id(), act, rule.name(), days + " days");
        return id;
    }

    /** As the personal copy asks it, which one must be said. */
    private RuleDefinition asked(RuleDefinition rule, @Nullable String copy) {
        if (rule.copies() != null && copy == null)
            throw RefusedException.invalid(
                    "The rule has personal copies, each with values and a memory of its own: say which one, by its "
                            + rule.copies().key() + ".");
        return oneCopy.rule(rule, clock.instant(), copy);
    }

    private void refuseWithoutMeaning(RuleDefinition rule) {
        var query = definitions.query(rule.query()).orElseThrow().definition();
        if (Parameters.readsClock(query))
            throw RefusedException.invalid(
                    "The query " + query.name()
                            + " reads the clock itself, so at every past slot it would answer as of today; use a parameter with a relative date.");
        if (!Parameters.move(rule, query))
            throw RefusedException.invalid(
                    "The query " + query.name()
                            + " reads the same rows at every slot: none of its parameters is a relative date, so past slots cannot be compared.");
    }

    /** @throws RefusedException if it had ended already */
    @Transactional
    public void stop(Person by, UUID id) {
        if (!store.end(id, WorkState.STOPPED, null, "Stopped by " + by.name() + "."))
            throw RefusedException.conflict("It has ended already.");
        audit.record(db, by.id(), AuditAct.STOP_WORK, id.toString(), null);
    }
}
