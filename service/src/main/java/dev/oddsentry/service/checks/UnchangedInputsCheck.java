package dev.oddsentry.service.checks;

import static dev.oddsentry.service.db.generated.Tables.DEFINITION;

import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.schedules.Schedules;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import java.util.Objects;
import java.util.Optional;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** Asks at a commit whether everything that a check was calculated with is as it was at the start. */
@Component
class UnchangedInputsCheck {
    private final DSLContext db;
    private final CheckStore checks;
    private final Sources sources;
    private final ThresholdStore thresholds;
    private final Schedules schedules;

    UnchangedInputsCheck(
            DSLContext db, CheckStore checks, Sources sources, ThresholdStore thresholds, Schedules schedules) {
        this.db = db;
        this.checks = checks;
        this.sources = sources;
        this.thresholds = thresholds;
        this.schedules = schedules;
    }

    /** Locks the rule's row until the transaction ends. @return false: the check is stale */
    boolean lock(Attempt attempt) {
        var lock = checks.lockRule(attempt.ruleId());
        return lock.state() == RuleState.ACTIVE && lock.memoryEpoch() == attempt.memoryEpoch() && stands(attempt);
    }

    /** The rule, its query, its thresholds, its calendar and its source are as they were when the check began. */
    private boolean stands(Attempt attempt) {
        var revisions = db.select(DEFINITION.ID, DEFINITION.REVISION)
                .from(DEFINITION)
                .where(DEFINITION.ID.in(
                        attempt.ruleId().value(), attempt.query().id()))
                .fetchMap(DEFINITION.ID, DEFINITION.REVISION);
        return Objects.equals(
                        revisions.get(attempt.ruleId().value()), attempt.rule().revision())
                && Objects.equals(
                        revisions.get(attempt.query().id()), attempt.query().revision())
                && thresholds.versions(attempt.thresholdVersions().keySet()).equals(attempt.thresholdVersions())
                && Objects.equals(schedules.revisionOfCalendar(attempt.rule().definition()), attempt.calendarRevision())
                && sources.find(attempt.source().name()).equals(Optional.of(attempt.source()));
    }
}
