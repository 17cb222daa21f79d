package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Severity;
import java.time.Instant;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** The handling of one finding: at most one of each kind. A check respects it and never writes it. */
public record Marks(
        @Nullable Taken taken,
        @Nullable Snoozed snoozed,
        @Nullable Accepted accepted) {
    public static final Marks NONE = new Marks(null, null, null);

    /** The kinds of handling. */
    public enum Kind {
        TAKE,
        SNOOZE,
        ACCEPT;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * Someone works on it: no reminders.
     *
     * @param at its severity when it was taken; a higher one ends the handling
     * @param until from when on reminders resume; null for never
     */
    public record Taken(Severity at, @Nullable Instant until) {}

    /** Nothing is reported until then; what differs at its end is an update. */
    public record Snoozed(Instant until) {}

    /**
     * It is correct: nothing is reported, and its clearing ends the handling without a message.
     *
     * @param until null for as long as it lasts
     */
    public record Accepted(@Nullable Instant until) {}

    public static Marks of(Kind kind, Severity at, @Nullable Instant until) {
        return switch (kind) {
            case TAKE -> new Marks(new Taken(at, until), null, null);
            case SNOOZE -> new Marks(null, new Snoozed(Objects.requireNonNull(until, "a snooze has an end")), null);
            case ACCEPT -> new Marks(null, null, new Accepted(until));
        };
    }

    /** Both; of two of one kind the other. */
    public Marks and(Marks other) {
        return new Marks(
                other.taken == null ? taken : other.taken,
                other.snoozed == null ? snoozed : other.snoozed,
                other.accepted == null ? accepted : other.accepted);
    }

    /** {@code true} if nothing is reported of it at this slot. */
    public boolean silenceAt(Instant slot) {
        return (snoozed != null && slot.isBefore(snoozed.until)) || isAcceptedAt(slot);
    }

    public boolean isAcceptedAt(Instant slot) {
        return accepted != null && (accepted.until == null || slot.isBefore(accepted.until));
    }

    boolean stopRemindersAt(Instant slot) {
        boolean takenThen = taken != null && (taken.until == null || slot.isBefore(taken.until));
        return takenThen || silenceAt(slot);
    }

    Marks without(Set<Kind> ended) {
        return new Marks(
                ended.contains(Kind.TAKE) ? null : taken,
                ended.contains(Kind.SNOOZE) ? null : snoozed,
                ended.contains(Kind.ACCEPT) ? null : accepted);
    }

    /** The marks that the current state ends. @param guardOver whether one that cleared counts as cleared already */
    Set<Kind> endedBy(CurrentFinding now, boolean guardOver, Instant slot) {
        var ended = EnumSet.noneOf(Kind.class);
        boolean cleared = now.state() == FindingState.CLEARED && guardOver;
        if (taken != null && (cleared || now.severity().isWorseThan(taken.at))) ended.add(Kind.TAKE);
        if (cleared && isAcceptedAt(slot)) ended.add(Kind.ACCEPT);
        return ended;
    }
}
