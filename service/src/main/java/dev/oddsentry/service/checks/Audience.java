package dev.oddsentry.service.checks;

import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.service.memory.MemoryStore.Before;
import dev.oddsentry.service.memory.MemoryStore.MayTell;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;

/** What those who hear together were told so far. */
interface Audience {
    /** That of a rule which was never checked. */
    Audience NEW = new Audience() {
        @Override
        public boolean isNew() {
            return true;
        }

        @Override
        public List<Before> mayTell(Collection<Long> moved, MayTell which) {
            return List.of();
        }

        @Override
        public boolean isAnyToldBefore(Instant slot) {
            return false;
        }

        @Override
        public Map<Long, Marks> marks() {
            return Map.of();
        }
    };

    /** True before its first good check. */
    boolean isNew();

    /** How it stood, before this check, to the findings that may have something to tell; those that the check opens are not among them. */
    List<Before> mayTell(Collection<Long> moved, MayTell which);

    boolean isAnyToldBefore(Instant slot);

    Map<Long, Marks> marks();
}
