package dev.oddsentry.service.measurements;

import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.evaluation.CheckedRule;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.thresholds.ThresholdStore;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Joins what a rule measured before an edit with what it measures now. */
@Component
public class MeasurementJoin {
    private final MeasurementStore store;
    private final DefinitionStore definitions;
    private final ThresholdStore thresholds;
    private final Audit audit;
    private final DSLContext db;

    MeasurementJoin(
            MeasurementStore store,
            DefinitionStore definitions,
            ThresholdStore thresholds,
            Audit audit,
            DSLContext db) {
        this.store = store;
        this.definitions = definitions;
        this.thresholds = thresholds;
        this.audit = audit;
        this.db = db;
    }

    /** What the rule's series mean as it is now. */
    public Set<UUID> present(RuleId ruleId) {
        return Set.copyOf(
                meanings(definitions.rule(ruleId).orElseThrow().definition()).values());
    }

    private Map<Measured, UUID> meanings(RuleDefinition rule) {
        var query = definitions.query(rule.query()).orElseThrow();
        var conditions = CheckedRule.check(rule, definitions.columns(query), thresholds.all(), null)
                .conditions();
        var meanings = new HashMap<Measured, UUID>();
        for (var measured : conditions.recorded())
            meanings.put(measured, store.meaning(rule, query.definition(), measured));
        return meanings;
    }

    /** @return how many points moved */
    @Transactional
    public int join(Person by, RuleId ruleId) {
        var rule = definitions.rule(ruleId).orElseThrow().definition();
        int moved = 0;
        for (var each : meanings(rule).entrySet()) moved += store.join(ruleId, each.getKey(), each.getValue());
        audit.record(db, by.id(), AuditAct.JOIN_MEASUREMENTS, rule.name(), moved + " points");
        return moved;
    }
}
