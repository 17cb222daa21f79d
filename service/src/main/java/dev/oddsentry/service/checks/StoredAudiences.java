package dev.oddsentry.service.checks;

import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.memory.MemoryStore.Before;
import dev.oddsentry.service.memory.MemoryStore.MayTell;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;

/** The audiences of a saved rule, as memory keeps them. */
record StoredAudiences(MemoryStore memory, UUID ruleId) implements Audiences {
    @Override
    public boolean areNew() {
        return !memory.hasAudience(ruleId);
    }

    @Override
    public List<Before> mayTell(Collection<Long> moved, MayTell which) {
        return memory.mayTell(ruleId, moved, which);
    }

    @Override
    public boolean isAnyToldBefore(Instant slot) {
        return memory.isAnyToldBefore(ruleId, slot);
    }

    @Override
    public Map<Long, Marks> marks() {
        return memory.marks(ruleId);
    }
}
