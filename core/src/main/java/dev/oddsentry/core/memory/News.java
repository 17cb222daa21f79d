package dev.oddsentry.core.memory;

import java.util.EnumSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The difference between what is so now and what one audience was last told. */
final class News {
    private News() {}

    /**
     * All kinds that apply, but for reminders; empty where there is nothing to tell.
     *
     * @param here whether the finding belongs to this audience still
     * @param guardOver whether what became better has been so for as long as the guard wants
     */
    static Set<NewsKind> between(Now now, @Nullable Reported reported, boolean here, boolean guardOver) {
        if (!here) return isOpenFor(reported) ? Set.of(NewsKind.MOVED_AWAY) : Set.of();
        return switch (now.state()) {
            case PENDING -> Set.of();
            case OPEN -> ofOpen(now, reported, guardOver);
            case CLEARED -> isOpenFor(reported) && guardOver ? Set.of(NewsKind.CLEARED) : Set.of();
            case OUT_OF_SIGHT -> ofOpen(now, reported, false);
        };
    }

    private static boolean isOpenFor(@Nullable Reported reported) {
        return reported != null && reported.state() != State.CLEARED;
    }

    /** Out of sight, it has no news of itself, but what was not told before it went is told from its last row. */
    private static Set<NewsKind> ofOpen(Now now, @Nullable Reported reported, boolean guardOver) {
        if (reported == null) return Set.of(NewsKind.NEW);
        var kinds = EnumSet.noneOf(NewsKind.class);
        if (reported.state() == State.CLEARED) kinds.add(NewsKind.RETURNED);
        if (now.severity().isWorseThan(reported.severity())) kinds.add(NewsKind.WORSENED);
        if (reported.severity().isWorseThan(now.severity()) && guardOver) kinds.add(NewsKind.EASED);
        if (!now.fingerprint().equals(reported.fingerprint())) kinds.add(NewsKind.CHANGED);
        return kinds;
    }
}
