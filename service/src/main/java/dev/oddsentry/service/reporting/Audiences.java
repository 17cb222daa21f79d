package dev.oddsentry.service.reporting;

import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore.Before;
import dev.oddsentry.service.memory.MemoryStore.MayTell;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;

/** The audiences of a rule and their last reports: one, or one for each value of the split column. */
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
        public boolean isAnyReportedBefore(Instant slot) {
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

    /** The audiences' last reports, before this check, of findings that may have an update; without those that the check opens. */
    List<Before> mayTell(Collection<Long> moved, MayTell which);

    boolean isAnyReportedBefore(Instant slot);

    Map<Long, Marks> marks();

    /** How many messages each had for slots after that one; only of those that had any. */
    Map<AudienceKey, Integer> messagesAfter(Instant slot);
}
