package dev.oddsentry.core.memory;

import java.util.EnumSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The difference between the current state and what one audience was last told. */
final class UpdateDetector {
    private UpdateDetector() {}

    /**
     * All kinds that apply, but for reminders; empty where there is nothing to tell.
     *
     * @param here whether the finding belongs to this audience still
     * @param guardOver whether what became better has been so for as long as the guard wants
     */
    static Set<UpdateKind> between(CurrentFinding now, @Nullable LastReport reported, boolean here, boolean guardOver) {
        if (!here) return isOpenFor(reported) ? Set.of(UpdateKind.MOVED) : Set.of();
        return switch (now.state()) {
            case PENDING -> Set.of();
            case OPEN -> ofOpen(now, reported, guardOver);
            case CLEARED -> isOpenFor(reported) && guardOver ? Set.of(UpdateKind.CLEARED) : Set.of();
            case AGED_OUT -> ofOpen(now, reported, false);
        };
    }

    private static boolean isOpenFor(@Nullable LastReport reported) {
        return reported != null && reported.state() != FindingState.CLEARED;
    }

    /** Out of sight, it has no news of itself, but what was not told before it went is told from its last row. */
    private static Set<UpdateKind> ofOpen(CurrentFinding now, @Nullable LastReport reported, boolean guardOver) {
        if (reported == null) return Set.of(UpdateKind.NEW);
        var kinds = EnumSet.noneOf(UpdateKind.class);
        if (reported.state() == FindingState.CLEARED) kinds.add(UpdateKind.RETURNED);
        if (now.severity().isWorseThan(reported.severity())) kinds.add(UpdateKind.WORSENED);
        if (reported.severity().isWorseThan(now.severity()) && guardOver) kinds.add(UpdateKind.IMPROVED);
        if (!now.fingerprint().equals(reported.fingerprint())) kinds.add(UpdateKind.CHANGED);
        return kinds;
    }
}
