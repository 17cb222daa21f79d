package dev.oddsentry.core.definition;

import java.time.Duration;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What starts checks apart from the schedule, and what a check waits for.
 *
 * @param events names of external events; each one starts a check
 * @param after rules whose checks start one of this rule, for the same slot
 * @param ready {@code null} if a check waits for nothing
 * @param whenEmpty what a result without rows means
 */
public record TriggersDefinition(
        List<String> events, List<After> after, @Nullable ReadyWhen ready, WhenEmpty whenEmpty) {
    public static final TriggersDefinition NONE = new TriggersDefinition(List.of(), List.of(), null, WhenEmpty.QUIET);

    /** What a check does about a result without rows. */
    public enum WhenEmpty {
        /** An outcome like any other. */
        QUIET,
        /** The owning team gets a notice. */
        NOTIFY,
        /** The check fails, and its retries follow. */
        FAIL
    }

    public boolean startsChecks() {
        return !events.isEmpty() || !after.isEmpty();
    }

    /** @param on which of that rule's outcomes */
    public record After(String rule, Set<Outcome> on) {
        public static final Set<Outcome> USUAL = Set.of(Outcome.FIRED, Outcome.QUIET);
    }

    /** How a check ended, for the rules that follow it. An incomplete check, one that awaits approval and a stopped one start nothing. */
    public enum Outcome {
        FIRED,
        QUIET,
        FAILED,
        /** The result had no rows, whatever else the outcome was. */
        NO_ROWS
    }

    /**
     * @param query a check may run once it returns a row
     * @param until how long after its slot a check that is not ready has failed
     */
    public record ReadyWhen(String query, Duration every, Duration until) {
        public static final Duration USUAL_EVERY = Duration.ofMinutes(5);
        public static final Duration USUAL_UNTIL = Duration.ofHours(2);
    }
}
