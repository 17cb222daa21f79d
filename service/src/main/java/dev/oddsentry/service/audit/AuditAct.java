package dev.oddsentry.service.audit;

import dev.oddsentry.core.definition.Definition;
import java.util.Arrays;
import java.util.List;

/** What a person did, as the audit keeps it. */
public enum AuditAct {
    LOG_IN,
    LOG_IN_REFUSED(true),
    GET_TOKEN,
    CREATE_TOKEN,
    REVOKE_TOKEN,
    END_SESSION,
    ADD_PERSON,
    INVITE_PERSON,
    CHANGE_PERSON,
    DISABLE_PERSON,
    ENABLE_PERSON,
    SET_PASSWORD,
    ASK_FOR_PASSWORD_LINK,
    SAVE_ACCESS_POLICY,
    SAVE_IDENTITY_PROVIDER,
    REMOVE_IDENTITY_PROVIDER,
    SAVE_TEAM,
    SAVE_SOURCE,
    SAVE_QUERY,
    SAVE_RULE,
    SAVE_THRESHOLD,
    SAVE_CALENDAR,
    SAVE_LAYOUT,
    SAVE_RECIPIENT_LIST,
    SAVE_ROUND_UP,
    RETIRE_DEFINITION,
    RESTORE_DEFINITION,
    REMOVE_DEFINITION,
    HAND_OVER,
    RENAME_TEAM,
    REMOVE_TEAM,
    SAVE_DRAFT,
    DISCARD_DRAFT,
    SET_THRESHOLD,
    SET_FILE_PASSWORD,
    SET_LANGUAGE,
    ACTIVATE_RULE,
    PAUSE_RULE,
    PAUSE_ROUND_UP,
    RESUME_ROUND_UP,
    SEND_ROUND_UP,
    SEND_EVENT,
    SEND_OPEN_FINDINGS,
    HOLD_MAIL,
    RELEASE_HELD_MAIL,
    DISCARD_HELD_MAIL,
    CANCEL_MESSAGE,
    RESEND_MESSAGE,
    CONFIRM_MESSAGE,
    REPORT_AGAIN,
    UNBLOCK_ADDRESS,
    RESUBSCRIBE,
    END_READER_CHOICE,
    CREATE_FEED,
    DELETE_FEED,
    BACK_TEST,
    BACKFILL,
    STOP_WORK,
    JOIN_MEASUREMENTS,
    EXPORT_FINDINGS,
    RUN_QUERY(true),
    TRY_CONDITION(true),
    EXPLAIN_FINDING(true),
    COUNT_EXCEPTIONS(true),
    PREVIEW_RULE(true),
    PREVIEW_DRAFT(true),
    PREVIEW_QUERY(true),
    PREVIEW_MESSAGE(true),
    PREVIEW_MESSAGE_OF_DRAFT(true),
    PREVIEW_EXTRACT(true),
    PREVIEW_ROUND_UP(true),
    /** From an earlier version, with its words in the detail. */
    EARLIER;

    private final boolean changesNothing;

    AuditAct() {
        this(false);
    }

    AuditAct(boolean changesNothing) {
        this.changesNothing = changesNothing;
    }

    public static AuditAct saving(Definition.Kind kind) {
        return switch (kind) {
            case QUERY -> SAVE_QUERY;
            case RULE -> SAVE_RULE;
            case THRESHOLD -> SAVE_THRESHOLD;
            case CALENDAR -> SAVE_CALENDAR;
            case LAYOUT -> SAVE_LAYOUT;
            case RECIPIENT_LIST -> SAVE_RECIPIENT_LIST;
            case ROUND_UP -> SAVE_ROUND_UP;
        };
    }

    AuditTrail.ActKind kind() {
        return switch (this) {
            case LOG_IN, LOG_IN_REFUSED, GET_TOKEN -> AuditTrail.ActKind.LOG_INS;
            default -> changesNothing ? AuditTrail.ActKind.LOOKS : AuditTrail.ActKind.CHANGES;
        };
    }

    static List<AuditAct> of(AuditTrail.ActKind kind) {
        return Arrays.stream(values()).filter(act -> act.kind() == kind).toList();
    }

    /** Those that look at something and change nothing. */
    public static List<AuditAct> looks() {
        return Arrays.stream(values()).filter(act -> act.changesNothing).toList();
    }
}
