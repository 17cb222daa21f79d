package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.RULE_CHECK;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.schedule.TimeLimit;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.db.Json;
import dev.oddsentry.service.db.generated.tables.records.RuleCheckRecord;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.layouts.Layouts;
import dev.oddsentry.service.queries.Parameters;
import dev.oddsentry.service.rules.CheckState;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;

/** First step: fixes the revisions and the memory that a check is calculated with, in one short transaction. */
@Component
class CheckStarter {
    private final DSLContext db;
    private final CheckStore store;
    private final DefinitionStore definitions;
    private final Sources sources;
    private final ThresholdStore thresholds;
    private final Schedules schedules;

    private final Layouts layouts;

    CheckStarter(
            DSLContext db,
            CheckStore store,
            DefinitionStore definitions,
            Sources sources,
            ThresholdStore thresholds,
            Schedules schedules,
            Layouts layouts) {
        this.layouts = layouts;
        this.db = db;
        this.store = store;
        this.definitions = definitions;
        this.sources = sources;
        this.thresholds = thresholds;
        this.schedules = schedules;
    }

    /** Given or learned, and never over the source's. */
    private Duration limit(RuleDefinition rule, RuleId ruleId, Source source) {
        var given = rule.limits().timeLimit();
        if (given != null) return given.compareTo(source.timeLimit()) > 0 ? source.timeLimit() : given;
        return TimeLimit.learned(store.lastGood(ruleId), store.timeOutsSinceGood(ruleId), source.timeLimit());
    }

    /** The parameters as they are used, in words, for the check's record. */
    private static Map<String, String> values(Moment moment, RuleDefinition rule, QueryDefinition query) {
        var words = new LinkedHashMap<String, String>();
        try {
            Parameters.writtenAt(moment, rule, query)
                    .forEach((name, value) -> words.put(name, CellText.of(value, moment.zone())));
        } catch (RuntimeException unreadable) {
            // The reading itself says what is wrong with it.
            return Map.of();
        }
        return words;
    }

    private static Current<RuleDefinition> with(Current<RuleDefinition> rule, RuleDefinition other) {
        return new Current<>(rule.id(), rule.revision(), other);
    }

    /** The rule with the values that an event brought. */
    private static Current<RuleDefinition> asked(Current<RuleDefinition> rule, RuleCheckRecord check) {
        if (check.getEventValues() == null) return rule;
        var values = new LinkedHashMap<>(rule.definition().parameters());
        values.putAll(Json.read(check.getEventValues(), new TypeReference<Map<String, String>>() {}));
        return with(rule, rule.definition().withParameters(values));
    }

    /** @return empty if there is nothing to run: the slot was overtaken, or the rule is not active */
    @Transactional
    public Optional<Attempt> begin(CheckId checkId, int number) {
        var check = store.find(checkId).orElseThrow();
        var lock = store.lockRule(check.getRuleId());
        if (lock.lastGoodSlot() != null && !check.getSlot().isAfter(lock.lastGoodSlot())) {
            store.end(checkId, number, CheckState.SKIPPED, "A later slot was done already.");
            return Optional.empty();
        }
        if (lock.state() != RuleState.ACTIVE) {
            store.end(checkId, number, CheckState.STOPPED, "The rule is not active.");
            return Optional.empty();
        }
        var saved = definitions.rule(check.getRuleId()).orElseThrow();
        var rule = asked(layouts.resolved(saved), check);
        var query = definitions.query(rule.definition().query()).orElseThrow();
        var source = sources.require(query.definition().source());
        var limit = limit(rule.definition(), check.getRuleId(), source);
        var moment = schedules.moment(rule.definition(), check.getSlot(), lock.lastGoodSlot());
        db.update(RULE_CHECK)
                .set(RULE_CHECK.RULE_REVISION, rule.revision())
                .set(RULE_CHECK.QUERY_REVISION, query.revision())
                .set(RULE_CHECK.SOURCE_NAME, source.name())
                .set(RULE_CHECK.TIME_LIMIT_MS, Math.toIntExact(limit.toMillis()))
                .set(RULE_CHECK.PARAMETERS, Json.write(values(moment, rule.definition(), query.definition())))
                .where(RULE_CHECK.ID.eq(checkId))
                .execute();
        var thresholdsUsed = rule.definition().thresholdsUsed();
        // The versions first: a value given in between makes the commit find another version, never miss one.
        var versions = thresholds.versions(thresholdsUsed);
        return Optional.of(new Attempt(
                checkId,
                number,
                moment,
                check.getOrigin(),
                lock.memoryEpoch(),
                lock.goodSlots(),
                lock.pending(),
                check.getApprovedBy() != null,
                limit,
                rule,
                query,
                source,
                thresholds.named(thresholdsUsed),
                versions,
                schedules.revisionOfCalendar(rule.definition()),
                null,
                lock.lastGoodSlot() != null));
    }
}
