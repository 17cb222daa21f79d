package dev.oddsentry.service.explanations;

import dev.oddsentry.service.memory.FindingEventKind;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What happened to a finding, in plain English. */
public final class EventWords {
    private EventWords() {}

    /**
     * A few words, as exports have them.
     *
     * @param updates the updates in a report; {@code null} for other events
     */
    public static String brief(FindingEventKind kind, String @Nullable [] updates) {
        return switch (kind) {
            case PENDING -> "pending";
            case PENDING_AGAIN -> "pending again";
            case FORGOTTEN_WHILE_PENDING -> "forgotten while pending";
            case OPENED -> "opened";
            case OPENED_AGAIN -> "opened again";
            case BACK_IN_WINDOW -> "back in the date window";
            case BACK_BEFORE_CONFIRMED -> "back before confirm_after";
            case SEVERITY_CHANGED -> "severity changed";
            case VALUES_CHANGED -> "values changed";
            case MISSED -> "missed";
            case NO_DATA -> "no data";
            case CLEARED -> "cleared";
            case AGED_OUT -> "aged out";
            case REPORTED -> "reported" + as(updates);
            case TREATED_AS_KNOWN -> "treated as known";
            case ESCALATED -> "escalated";
            case TAKEN -> "taken";
            case SNOOZED -> "snoozed";
            case ACCEPTED -> "accepted";
            case TAKE_WITHDRAWN -> "no longer taken";
            case SNOOZE_WITHDRAWN -> "no longer snoozed";
            case ACCEPT_WITHDRAWN -> "no longer accepted";
            case TAKE_ENDED -> "take ended";
            case SNOOZE_ENDED -> "snooze ended";
            case ACCEPT_ENDED -> "accept ended";
            case NOTED -> "note";
        };
    }

    /** A sentence without a full stop, for somebody who has never seen the word. @param severity as the rule calls it */
    static String full(FindingEventKind kind, String severity) {
        return switch (kind) {
            case PENDING, PENDING_AGAIN ->
                "an exception (" + severity + "), " + brief(kind, null) + " until it has lasted long enough";
            case OPENED, OPENED_AGAIN, BACK_IN_WINDOW, BACK_BEFORE_CONFIRMED -> brief(kind, null) + " as " + severity;
            case SEVERITY_CHANGED -> "severity changed to " + severity;
            case MISSED -> "not an exception, but not for long enough to clear (clear_after)";
            case NO_DATA -> "could not be evaluated, so it stays as it was";
            case AGED_OUT -> "aged out: it left the rule's date window, so it is not known whether it was fixed";
            case TREATED_AS_KNOWN -> "not reported: treated as known, or a kind this rule does not report";
            case TAKE_ENDED -> "no longer taken, because it worsened or cleared";
            case ACCEPT_ENDED -> "no longer accepted, because it cleared";
            default -> brief(kind, null);
        };
    }

    /** How a message reported it. */
    static String inMessage(FindingEventKind kind, String @Nullable [] updates) {
        return kind == FindingEventKind.ESCALATED
                ? "escalated, because nobody had taken it,"
                : "reported" + as(updates);
    }

    private static String as(String @Nullable [] updates) {
        return updates == null || updates.length == 0 ? "" : " as " + String.join(", ", List.of(updates));
    }
}
