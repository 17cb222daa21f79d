package dev.oddsentry.service.reporting;

import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore.Before;
import dev.oddsentry.service.memory.MemoryStore.MayTell;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;

/** What those who hear of a rule were told so far: one audience, or one for each value of the split's column. */
public interface Audiences {
    /** Those of a rule that was never checked. */
    Audiences NEW = new Audiences() {
        @Override
        public boolean areNew() {
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

        @Override
        public Map<AudienceKey, Integer> messagesAfter(Instant slot) {
            return Map.of();
        }
    };

    /** True before the rule's first good check. */
    boolean areNew();

    /** How they stood, before this check, to the findings that may have something to tell; those that the check opens are not among them. */
    List<Before> mayTell(Collection<Long> moved, MayTell which);

    boolean isAnyToldBefore(Instant slot);

    Map<Long, Marks> marks();

    /** How many messages each had for slots after that one; only of those that had any. */
    Map<AudienceKey, Integer> messagesAfter(Instant slot);
}
