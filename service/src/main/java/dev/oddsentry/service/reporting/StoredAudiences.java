package dev.oddsentry.service.reporting;

import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.memory.MemoryStore.Before;
import dev.oddsentry.service.memory.MemoryStore.MayTell;
import dev.oddsentry.service.memory.Scope;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;

/** The audiences of a saved rule, or of one personal copy of it, as memory keeps them. */
public record StoredAudiences(MemoryStore memory, Scope scope) implements Audiences {
    @Override
    public boolean areNew() {
        return !memory.hasAudience(scope);
    }

    @Override
    public List<Before> mayTell(Collection<Long> moved, MayTell which) {
        return memory.mayTell(scope, moved, which);
    }

    @Override
    public boolean isAnyReportedBefore(Instant slot) {
        return memory.isAnyReportedBefore(scope, slot);
    }

    @Override
    public Map<Long, Marks> marks() {
        return memory.marks(scope);
    }

    @Override
    public Map<AudienceKey, Integer> messagesAfter(Instant slot) {
        return memory.messagesAfter(scope, slot);
    }
}
