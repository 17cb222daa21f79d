-- What a recipient chose of a rule's or a round-up's messages, by the link in one of them.
create table reader_choice (
    definition_id   uuid        not null references definition,
    address         text        not null check (address = lower(address)),
    paused_until    timestamptz,
    -- Messages of a day or a week in one, at this hour, and of a week on this day (1 is Monday).
    collect         text check (collect in ('DAILY', 'WEEKLY')),
    collect_day     smallint check (collect_day between 1 and 7),
    collect_hour    smallint check (collect_hour between 0 and 23),
    -- When what waits is sent; null where nothing is kept back.
    next_collection timestamptz,
    files_by_link   boolean     not null default false,
    chosen_at       timestamptz not null,
    primary key (definition_id, address),
    check ((collect is null) = (collect_hour is null) and (collect_day is not null) = (collect is not distinct from 'WEEKLY'))
);
create index reader_choice_due on reader_choice (next_collection) where next_collection is not null;

-- A recipient whose message waits for their collection, and the collection that it went with.
alter table message_recipient
    drop constraint message_recipient_state_check,
    add constraint message_recipient_state_check check (
        state in ('QUEUED', 'SENDING', 'SENT', 'UNSURE', 'UNCONFIRMED', 'REJECTED', 'EXPIRED', 'CANCELLED', 'WAITING', 'COLLECTED')),
    add column collected_in uuid references message on delete set null;
create index message_recipient_waiting on message_recipient (lower(address)) where state = 'WAITING';
create index message_recipient_collected on message_recipient (collected_in) where collected_in is not null;

alter table message
    -- The address for which messages were collected.
    add column collection_for text,
    -- The rule or the round-up that a recipient asks its owner about, and who asks.
    add column question_about uuid references definition,
    add column question_from  text,
    -- Whether each recipient gets links of their own.
    add column reader_links   boolean not null default false,
    drop constraint message_of,
    add constraint message_of check (
        num_nonnulls(incident_id, round_up_id, check_id, preview_of, escalation_of, trial_of, collection_for, question_about) = 1
        and (check_id is null) = (rule_id is null) and (check_id is null) = (audience_id is null)),
    add constraint message_question check ((question_about is null) = (question_from is null));
update message set reader_links = true where allow_unsubscribe;

-- A recipient sets their own language without being a person who logs in.
alter table recipient_language alter column set_by drop not null;

alter table audit_event drop constraint audit_event_act_check;
alter table audit_event add constraint audit_event_act_check
    check (act in ('LOG_IN', 'LOG_IN_REFUSED', 'GET_TOKEN', 'CREATE_TOKEN', 'REVOKE_TOKEN', 'END_SESSION', 'ADD_PERSON', 'INVITE_PERSON', 'CHANGE_PERSON',
        'DISABLE_PERSON', 'ENABLE_PERSON', 'SET_PASSWORD', 'ASK_FOR_PASSWORD_LINK', 'SAVE_ACCESS_POLICY', 'SAVE_TEAM',
        'SAVE_SOURCE', 'SAVE_QUERY',
        'SAVE_RULE', 'SAVE_THRESHOLD', 'SAVE_CALENDAR', 'SAVE_LAYOUT', 'SAVE_RECIPIENT_LIST', 'SAVE_ROUND_UP', 'RETIRE_DEFINITION', 'RESTORE_DEFINITION', 'REMOVE_DEFINITION', 'HAND_OVER', 'RENAME_TEAM', 'REMOVE_TEAM', 'SAVE_DRAFT',
        'DISCARD_DRAFT', 'SET_THRESHOLD', 'SET_FILE_PASSWORD', 'SET_LANGUAGE', 'ACTIVATE_RULE', 'PAUSE_RULE',
        'PAUSE_ROUND_UP', 'RESUME_ROUND_UP', 'SEND_ROUND_UP', 'SEND_EVENT', 'SEND_OPEN_FINDINGS', 'HOLD_MAIL',
        'RELEASE_HELD_MAIL', 'DISCARD_HELD_MAIL', 'CANCEL_MESSAGE', 'RESEND_MESSAGE', 'CONFIRM_MESSAGE', 'REPORT_AGAIN',
        'UNBLOCK_ADDRESS', 'RESUBSCRIBE', 'END_READER_CHOICE', 'CREATE_FEED', 'DELETE_FEED', 'BACK_TEST', 'BACKFILL', 'STOP_WORK',
        'JOIN_MEASUREMENTS', 'EXPORT_FINDINGS', 'RUN_QUERY', 'TRY_CONDITION', 'EXPLAIN_FINDING', 'COUNT_EXCEPTIONS',
        'PREVIEW_RULE', 'PREVIEW_DRAFT', 'PREVIEW_QUERY', 'PREVIEW_MESSAGE', 'PREVIEW_MESSAGE_OF_DRAFT', 'PREVIEW_EXTRACT',
        'PREVIEW_ROUND_UP', 'EARLIER'));
