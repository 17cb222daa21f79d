package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;

import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import java.util.Optional;
import java.util.UUID;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** First step: fixes the revisions and the memory that a check is reckoned with, in one short transaction. */
@Component
class CheckBeginning {
    private final DSLContext db;
    private final CheckStore store;
    private final DefinitionStore definitions;
    private final Sources sources;
    private final ThresholdStore thresholds;

    CheckBeginning(
            DSLContext db, CheckStore store, DefinitionStore definitions, Sources sources, ThresholdStore thresholds) {
        this.db = db;
        this.store = store;
        this.definitions = definitions;
        this.sources = sources;
        this.thresholds = thresholds;
    }

    /** @return empty if there is nothing to run: the slot was overtaken, or the rule is not active */
    @Transactional
    public Optional<Attempt> begin(UUID checkId, int number) {
        var check = store.find(checkId).orElseThrow();
        var lock = store.lockRule(check.getRuleId());
        if (lock.lastGoodSlot() != null && !check.getSlot().isAfter(lock.lastGoodSlot())) {
            store.end(checkId, number, CheckState.OVERTAKEN, "A later slot was done already.");
            return Optional.empty();
        }
        if (lock.state() != RuleState.ACTIVE) {
            store.end(checkId, number, CheckState.STOPPED, "The rule is not active.");
            return Optional.empty();
        }
        var rule = definitions.rule(check.getRuleId()).orElseThrow();
        var query = definitions.query(rule.definition().query()).orElseThrow();
        var source = sources.require(query.definition().source());
        db.update(RULE_CHECK)
                .set(RULE_CHECK.RULE_REVISION, rule.revision())
                .set(RULE_CHECK.QUERY_REVISION, query.revision())
                .where(RULE_CHECK.ID.eq(checkId))
                .execute();
        var thresholdsUsed = rule.definition().thresholdsUsed();
        // The versions first: a value given in between makes the commit find another version, never miss one.
        var versions = thresholds.versions(thresholdsUsed);
        return Optional.of(new Attempt(
                checkId,
                number,
                check.getSlot(),
                check.getOrigin(),
                lock.memoryEpoch(),
                lock.goodSlots(),
                rule,
                query,
                source,
                thresholds.named(thresholdsUsed),
                versions));
    }
}
