package dev.oddsentry.service.checks;

import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.PersonalCopy;
import dev.oddsentry.service.reporting.ReportPlan;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Last step of one personal copy: all of it or nothing, as {@link CheckCommit} does it for a whole check. */
@Component
class CopyCommit {
    private final UnchangedInputsCheck unchanged;
    private final CheckStore checks;
    private final CopyStore copies;
    private final ResultWriter resultWriter;

    CopyCommit(UnchangedInputsCheck unchanged, CheckStore checks, CopyStore copies, ResultWriter resultWriter) {
        this.unchanged = unchanged;
        this.checks = checks;
        this.copies = copies;
        this.resultWriter = resultWriter;
    }

    /** @return false: stale, stopped, or another attempt has the check, and nothing was written */
    @Transactional
    public boolean commit(Attempt attempt, PersonalCopy copy, Evaluation evaluation, ReportPlan plan) {
        if (!unchanged.lock(attempt) || !checks.lockRunning(attempt.checkId(), attempt.number())) return false;
        copies.good(attempt, copy, CheckSummary.of(evaluation, plan));
        checks.read(attempt, evaluation.reading().readAt());
        resultWriter.keep(attempt, evaluation, plan);
        return true;
    }
}
