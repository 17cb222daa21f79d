package dev.oddsentry.service.memory;

import dev.oddsentry.core.memory.Marks;

/** What happened to a finding. Stored by name; {@code EventWords} has the sentences. */
public enum FindingEventKind {
    PENDING,
    PENDING_AGAIN,
    FORGOTTEN_WHILE_PENDING,
    OPENED,
    OPENED_AGAIN,
    /** Its row is in the rule's date window again. */
    BACK_IN_WINDOW,
    /** It was an exception again before its absence had lasted for {@code confirm_after}. */
    BACK_BEFORE_CONFIRMED,
    SEVERITY_CHANGED,
    VALUES_CHANGED,
    /** Not an exception, but not for long enough to clear. */
    MISSED,
    NO_DATA,
    CLEARED,
    AGED_OUT,
    REPORTED,
    TREATED_AS_KNOWN,
    ESCALATED,
    TAKEN,
    SNOOZED,
    ACCEPTED,
    TAKE_WITHDRAWN,
    SNOOZE_WITHDRAWN,
    ACCEPT_WITHDRAWN,
    /** The state of the finding ended it, not a person. */
    TAKE_ENDED,
    SNOOZE_ENDED,
    ACCEPT_ENDED,
    /** A person wrote what they know of it or did about it. */
    NOTED;

    public static FindingEventKind set(Marks.Kind kind) {
        return switch (kind) {
            case TAKE -> TAKEN;
            case SNOOZE -> SNOOZED;
            case ACCEPT -> ACCEPTED;
        };
    }

    public static FindingEventKind withdrawn(Marks.Kind kind) {
        return valueOf(kind.name() + "_WITHDRAWN");
    }

    public static FindingEventKind ended(Marks.Kind kind) {
        return valueOf(kind.name() + "_ENDED");
    }
}
