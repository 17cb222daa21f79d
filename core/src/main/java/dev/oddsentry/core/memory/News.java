package dev.oddsentry.core.memory;

import java.util.EnumSet;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The difference between what is so now and what was last reported. */
public final class News {
    private News() {}

    /** All kinds that apply; empty where there is nothing to tell. */
    public static Set<NewsKind> between(Now now, @Nullable Reported reported) {
        return switch (now.state()) {
            case PENDING -> Set.of();
            case OPEN -> ofOpen(now, reported);
            case CLEARED -> reported != null && reported.state() != State.CLEARED ? Set.of(NewsKind.CLEARED) : Set.of();
            // It was there and nobody was told: told from its last row. Told before, it keeps what was told.
            case OUT_OF_SIGHT -> reported == null ? Set.of(NewsKind.NEW) : Set.of();
        };
    }

    private static Set<NewsKind> ofOpen(Now now, @Nullable Reported reported) {
        if (reported == null) return Set.of(NewsKind.NEW);
        var kinds = EnumSet.noneOf(NewsKind.class);
        if (reported.state() == State.CLEARED) kinds.add(NewsKind.RETURNED);
        if (now.severity().isWorseThan(reported.severity())) kinds.add(NewsKind.WORSENED);
        return kinds;
    }
}
