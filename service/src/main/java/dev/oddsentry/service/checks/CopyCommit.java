package dev.oddsentry.service.checks;

import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Last step of one personal copy: all of it or nothing, as {@link CheckCommit} does it for a whole check. */
@Component
class CopyCommit {
    private final Unchanged unchanged;
    private final CheckStore checks;
    private final CopyStore copies;
    private final Remembering remembering;

    CopyCommit(Unchanged unchanged, CheckStore checks, CopyStore copies, Remembering remembering) {
        this.unchanged = unchanged;
        this.checks = checks;
        this.copies = copies;
        this.remembering = remembering;
    }

    /** @return false: stale, stopped, or another attempt has the check, and nothing was written */
    @Transactional
    public boolean commit(Attempt attempt, PersonalCopy copy, Reckoned reckoned, Told told) {
        if (!unchanged.lock(attempt) || !checks.lockRunning(attempt.checkId(), attempt.number())) return false;
        copies.good(attempt, copy, Counts.of(reckoned, told));
        checks.read(attempt, reckoned.reading().readAt());
        remembering.keep(attempt, reckoned, told);
        return true;
    }
}
