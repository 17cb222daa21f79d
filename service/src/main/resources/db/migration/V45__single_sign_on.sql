-- Who else says who somebody is (OpenID Connect): its address, what this service is called there, and what its groups mean here.
create table identity_provider (
    id                 uuid        primary key,
    name               text        not null unique check (name ~ '^[a-z0-9][a-z0-9-]{0,39}$'),
    title              text        not null,
    issuer             text        not null,
    client_id          text        not null,
    client_secret      bytea,
    scopes             text[]      not null,
    login_claim        text        not null,
    group_claim        text        not null,
    known_by           text        not null check (known_by in ('NOTHING', 'LOG_IN_NAME', 'ADDRESS')),
    adds_people        boolean     not null,
    other_role         text        check (other_role in ('READER', 'ANALYST', 'LEAD', 'OPERATOR', 'AUDITOR')),
    addresses_verified boolean     not null,
    active             boolean     not null,
    updated_at         timestamptz not null
);

-- The first line that fits decides the role; the teams of all that fit are theirs.
create table provider_group (
    provider_id uuid     not null references identity_provider on delete cascade,
    position    smallint not null,
    group_name  text     not null,
    role        text     not null check (role in ('READER', 'ANALYST', 'LEAD', 'OPERATOR', 'AUDITOR')),
    team        text     references team (name) on update cascade on delete set null,
    primary key (provider_id, position)
);

-- Who of a provider is who here; its subjects are never given to somebody else.
create table provider_identity (
    provider_id   uuid        not null references identity_provider on delete cascade,
    subject       text        not null,
    person_id     uuid        not null references person,
    -- Encrypted; where the provider gives one, it is asked again whether the person is still there.
    refresh_token bytea,
    confirmed_at  timestamptz not null,
    primary key (provider_id, subject)
);
create index provider_identity_of_person on provider_identity (person_id);

-- A browser that was sent to a provider and is expected back, once.
create table sign_on_attempt (
    state_hash    bytea       primary key,
    browser_hash  bytea       not null,
    provider_id   uuid        not null references identity_provider on delete cascade,
    nonce         text        not null,
    code_verifier text        not null,
    return_to     text        not null,
    begun_at      timestamptz not null
);

-- A program without a browser that waits for somebody to log it in.
create table device_request (
    device_hash bytea       primary key,
    user_code   text        not null unique,
    name        text        not null,
    address     text        not null,
    begun_at    timestamptz not null,
    polled_at   timestamptz,
    answer      text        check (answer in ('ALLOWED', 'REFUSED')),
    person_id   uuid        references person,
    check ((answer is not distinct from 'ALLOWED') = (person_id is not null))
);

-- Whether people log in with a password of this service; without it, one operator still does.
alter table access_policy
    add column passwords          boolean not null default true,
    add column emergency_operator uuid references person,
    add constraint access_policy_emergency check (passwords or emergency_operator is not null);

alter table audit_event drop constraint audit_event_act_check;
alter table audit_event add constraint audit_event_act_check
    check (act in ('LOG_IN', 'LOG_IN_REFUSED', 'GET_TOKEN', 'CREATE_TOKEN', 'REVOKE_TOKEN', 'END_SESSION', 'ADD_PERSON', 'INVITE_PERSON', 'CHANGE_PERSON',
        'DISABLE_PERSON', 'ENABLE_PERSON', 'SET_PASSWORD', 'ASK_FOR_PASSWORD_LINK', 'SAVE_ACCESS_POLICY', 'SAVE_IDENTITY_PROVIDER', 'REMOVE_IDENTITY_PROVIDER', 'SAVE_TEAM',
        'SAVE_SOURCE', 'SAVE_QUERY',
        'SAVE_RULE', 'SAVE_THRESHOLD', 'SAVE_CALENDAR', 'SAVE_LAYOUT', 'SAVE_RECIPIENT_LIST', 'SAVE_ROUND_UP', 'RETIRE_DEFINITION', 'RESTORE_DEFINITION', 'REMOVE_DEFINITION', 'HAND_OVER', 'RENAME_TEAM', 'REMOVE_TEAM', 'SAVE_DRAFT',
        'DISCARD_DRAFT', 'SET_THRESHOLD', 'SET_FILE_PASSWORD', 'SET_LANGUAGE', 'ACTIVATE_RULE', 'PAUSE_RULE',
        'PAUSE_ROUND_UP', 'RESUME_ROUND_UP', 'SEND_ROUND_UP', 'SEND_EVENT', 'SEND_OPEN_FINDINGS', 'HOLD_MAIL',
        'RELEASE_HELD_MAIL', 'DISCARD_HELD_MAIL', 'CANCEL_MESSAGE', 'RESEND_MESSAGE', 'CONFIRM_MESSAGE', 'REPORT_AGAIN',
        'UNBLOCK_ADDRESS', 'RESUBSCRIBE', 'END_READER_CHOICE', 'CREATE_FEED', 'DELETE_FEED', 'BACK_TEST', 'BACKFILL', 'STOP_WORK',
        'JOIN_MEASUREMENTS', 'EXPORT_FINDINGS', 'RUN_QUERY', 'TRY_CONDITION', 'EXPLAIN_FINDING', 'COUNT_EXCEPTIONS',
        'PREVIEW_RULE', 'PREVIEW_DRAFT', 'PREVIEW_QUERY', 'PREVIEW_MESSAGE', 'PREVIEW_MESSAGE_OF_DRAFT', 'PREVIEW_EXTRACT',
        'PREVIEW_ROUND_UP', 'EARLIER'));
