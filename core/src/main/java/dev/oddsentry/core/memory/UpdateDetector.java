package dev.oddsentry.core.memory;

import java.util.EnumSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The difference between the current state and the last report to one audience. */
final class UpdateDetector {
    private UpdateDetector() {}

    /**
     * All kinds that apply, except reminders; empty without updates.
     *
     * @param here whether the finding still belongs to this audience
     * @param guardOver whether a clearing or improvement has lasted for {@code confirm_after}
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

    /** Once aged out it has no further updates, but those that were unreported before are reported from its last row. */
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
