-- What a token may be used for, at most; those from before may do all that their owner may. Written once a minute at most: when it was last used.
alter table access_token
    add column scope        text not null default 'OPERATE' check (scope in ('READ', 'CHECK', 'WRITE', 'OPERATE')),
    add column last_used_at timestamptz;
alter table access_token alter column scope drop default;

alter table audit_event drop constraint audit_event_act_check;
alter table audit_event add constraint audit_event_act_check
    check (act in ('LOG_IN', 'LOG_IN_REFUSED', 'GET_TOKEN', 'CREATE_TOKEN', 'REVOKE_TOKEN', 'END_SESSION', 'ADD_PERSON', 'INVITE_PERSON', 'CHANGE_PERSON',
        'DISABLE_PERSON', 'ENABLE_PERSON', 'SET_PASSWORD', 'ASK_FOR_PASSWORD_LINK', 'SAVE_ACCESS_POLICY', 'SAVE_TEAM',
        'SAVE_SOURCE', 'SAVE_QUERY',
        'SAVE_RULE', 'SAVE_THRESHOLD', 'SAVE_CALENDAR', 'SAVE_LAYOUT', 'SAVE_RECIPIENT_LIST', 'SAVE_ROUND_UP', 'RETIRE_DEFINITION', 'RESTORE_DEFINITION', 'REMOVE_DEFINITION', 'HAND_OVER', 'RENAME_TEAM', 'REMOVE_TEAM', 'SAVE_DRAFT',
        'DISCARD_DRAFT', 'SET_THRESHOLD', 'SET_FILE_PASSWORD', 'SET_LANGUAGE', 'ACTIVATE_RULE', 'PAUSE_RULE',
        'PAUSE_ROUND_UP', 'RESUME_ROUND_UP', 'SEND_ROUND_UP', 'SEND_EVENT', 'SEND_OPEN_FINDINGS', 'HOLD_MAIL',
        'RELEASE_HELD_MAIL', 'DISCARD_HELD_MAIL', 'CANCEL_MESSAGE', 'RESEND_MESSAGE', 'CONFIRM_MESSAGE', 'REPORT_AGAIN',
        'UNBLOCK_ADDRESS', 'RESUBSCRIBE', 'CREATE_FEED', 'DELETE_FEED', 'BACK_TEST', 'BACKFILL', 'STOP_WORK',
        'JOIN_MEASUREMENTS', 'EXPORT_FINDINGS', 'RUN_QUERY', 'TRY_CONDITION', 'EXPLAIN_FINDING', 'COUNT_EXCEPTIONS',
        'PREVIEW_RULE', 'PREVIEW_DRAFT', 'PREVIEW_QUERY', 'PREVIEW_MESSAGE', 'PREVIEW_MESSAGE_OF_DRAFT', 'PREVIEW_EXTRACT',
        'PREVIEW_ROUND_UP', 'EARLIER'));
