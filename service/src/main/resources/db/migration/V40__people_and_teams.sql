-- Three more roles. An invited person has no password until they follow their link.
alter table person drop constraint person_role_check;
alter table person add constraint person_role_check
    check (role in ('READER', 'ANALYST', 'LEAD', 'OPERATOR', 'AUDITOR'));
alter table person alter column password_hash drop not null;
alter table person add column last_log_in_at timestamptz;

-- Who is in which team. Written by operators, and by leads for their own teams.
create table membership (
    person_id uuid not null references person,
    team      text not null references team on update cascade on delete cascade,
    primary key (person_id, team)
);
create index membership_team on membership (team);

-- Links that set a password, once, kept as a hash. Written by an invitation or a request for a new password, deleted by use.
create table password_link (
    hash       bytea       primary key,
    person_id  uuid        not null references person,
    invitation boolean     not null,
    created_at timestamptz not null,
    expires_at timestamptz not null
);
create index password_link_person on password_link (person_id);

-- What the operator has decided of access; one row. Until teams decide, analysts change everything, as before.
create table access_policy (
    one          boolean     primary key default true check (one),
    teams_decide boolean     not null,
    changed_at   timestamptz not null
);
insert into access_policy (teams_decide, changed_at) values (false, now());

alter table audit_event drop constraint audit_event_act_check;
alter table audit_event add constraint audit_event_act_check
    check (act in ('LOG_IN', 'LOG_IN_REFUSED', 'GET_TOKEN', 'ADD_PERSON', 'INVITE_PERSON', 'CHANGE_PERSON',
        'DISABLE_PERSON', 'ENABLE_PERSON', 'SET_PASSWORD', 'ASK_FOR_PASSWORD_LINK', 'SAVE_ACCESS_POLICY', 'SAVE_TEAM',
        'SAVE_SOURCE', 'SAVE_QUERY',
        'SAVE_RULE', 'SAVE_THRESHOLD', 'SAVE_CALENDAR', 'SAVE_LAYOUT', 'SAVE_RECIPIENT_LIST', 'SAVE_ROUND_UP', 'SAVE_DRAFT',
        'DISCARD_DRAFT', 'SET_THRESHOLD', 'SET_FILE_PASSWORD', 'SET_LANGUAGE', 'ACTIVATE_RULE', 'PAUSE_RULE',
        'PAUSE_ROUND_UP', 'RESUME_ROUND_UP', 'SEND_ROUND_UP', 'SEND_EVENT', 'SEND_OPEN_FINDINGS', 'HOLD_MAIL',
        'RELEASE_HELD_MAIL', 'DISCARD_HELD_MAIL', 'CANCEL_MESSAGE', 'RESEND_MESSAGE', 'CONFIRM_MESSAGE', 'REPORT_AGAIN',
        'UNBLOCK_ADDRESS', 'RESUBSCRIBE', 'CREATE_FEED', 'DELETE_FEED', 'BACK_TEST', 'BACKFILL', 'STOP_WORK',
        'JOIN_MEASUREMENTS', 'EXPORT_FINDINGS', 'RUN_QUERY', 'TRY_CONDITION', 'EXPLAIN_FINDING', 'COUNT_EXCEPTIONS',
        'PREVIEW_RULE', 'PREVIEW_DRAFT', 'PREVIEW_QUERY', 'PREVIEW_MESSAGE', 'PREVIEW_MESSAGE_OF_DRAFT', 'PREVIEW_EXTRACT',
        'PREVIEW_ROUND_UP', 'EARLIER'));
