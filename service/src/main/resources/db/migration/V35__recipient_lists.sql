-- Recipients that several rules mail under one name.
alter table definition drop constraint definition_kind_check;
alter table definition add constraint definition_kind_check
    check (kind in ('QUERY', 'RULE', 'THRESHOLD', 'CALENDAR', 'LAYOUT', 'RECIPIENT_LIST', 'ROUND_UP'));

alter table audit_event drop constraint audit_event_act_check;
alter table audit_event add constraint audit_event_act_check
    check (act in ('LOG_IN', 'LOG_IN_REFUSED', 'GET_TOKEN', 'ADD_PERSON', 'SAVE_TEAM', 'SAVE_SOURCE', 'SAVE_QUERY',
        'SAVE_RULE', 'SAVE_THRESHOLD', 'SAVE_CALENDAR', 'SAVE_LAYOUT', 'SAVE_RECIPIENT_LIST', 'SAVE_ROUND_UP', 'SAVE_DRAFT',
        'DISCARD_DRAFT', 'SET_THRESHOLD', 'SET_FILE_PASSWORD', 'SET_LANGUAGE', 'ACTIVATE_RULE', 'PAUSE_RULE',
        'PAUSE_ROUND_UP', 'RESUME_ROUND_UP', 'SEND_ROUND_UP', 'SEND_EVENT', 'SEND_OPEN_FINDINGS', 'HOLD_MAIL',
        'RELEASE_HELD_MAIL', 'DISCARD_HELD_MAIL', 'CANCEL_MESSAGE', 'RESEND_MESSAGE', 'CONFIRM_MESSAGE', 'REPORT_AGAIN',
        'UNBLOCK_ADDRESS', 'RESUBSCRIBE', 'CREATE_FEED', 'DELETE_FEED', 'BACK_TEST', 'BACKFILL', 'STOP_WORK',
        'JOIN_MEASUREMENTS', 'EXPORT_FINDINGS', 'RUN_QUERY', 'TRY_CONDITION', 'EXPLAIN_FINDING', 'COUNT_EXCEPTIONS',
        'PREVIEW_RULE', 'PREVIEW_DRAFT', 'PREVIEW_QUERY', 'PREVIEW_MESSAGE', 'PREVIEW_MESSAGE_OF_DRAFT', 'PREVIEW_EXTRACT',
        'PREVIEW_ROUND_UP', 'EARLIER'));
