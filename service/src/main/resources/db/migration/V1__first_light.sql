-- The records of Odd Sentry. Every table says who may write it and when its rows go.

-- Who this installation is. Written once, at the first start. The seed must go with every backup:
-- with another seed every finding would look new.
create table installation (
    only_row         boolean primary key default true check (only_row),
    id               uuid        not null,
    digest_seed      bigint      not null,
    encoding_version integer     not null,
    created_at       timestamptz not null
);

-- People who log in. Written by operators; never deleted, only made inactive, since they stand in the audit.
create table person (
    id            uuid primary key,
    login         text        not null check (login = lower(login)),
    name          text        not null,
    email         text        not null,
    password_hash text        not null,
    role          text        not null check (role in ('ANALYST', 'OPERATOR')),
    active        boolean     not null default true,
    created_at    timestamptz not null,
    unique (login)
);

-- Tokens of the command line, kept as a hash. Written at log-in, deleted at log-out; expired ones at each log-in.
create table access_token (
    id           uuid primary key,
    person_id    uuid        not null references person,
    name         text        not null,
    hash         bytea       not null unique,
    created_at   timestamptz not null,
    expires_at   timestamptz not null
);
create index access_token_person on access_token (person_id);

-- Who did what. Written with the act itself; kept until the operator's retention takes it.
create table audit_event (
    id        bigint generated always as identity primary key,
    at        timestamptz not null,
    person_id uuid references person,
    act       text        not null,
    subject   text        not null,
    detail    text
);

-- Named connections that queries read through. Written by operators. The password is encrypted under a key kept elsewhere.
create table source (
    id               uuid primary key,
    name             text        not null unique,
    jdbc_url         text        not null,
    username         text        not null,
    password_cipher  bytea       not null,
    most_rows        bigint      not null check (most_rows > 0),
    time_limit_ms    integer     not null check (time_limit_ms > 0),
    most_connections integer     not null check (most_connections > 0),
    updated_at       timestamptz not null
);

-- Queries and rules by name. Written by analysts through saves.
create table definition (
    id       uuid primary key,
    kind     text    not null check (kind in ('QUERY', 'RULE')),
    name     text    not null,
    revision integer not null check (revision > 0),
    unique (kind, name)
);

-- Every save, whole. Written once, never changed, never deleted.
create table definition_revision (
    definition_id uuid        not null references definition,
    revision      integer     not null,
    document      jsonb       not null,
    remark        text        not null,
    author_id     uuid references person,
    at            timestamptz not null,
    primary key (definition_id, revision)
);

-- The columns that a query's revision returned when it was saved: [{"name":…,"type":…}]. Written with the revision.
create table query_columns (
    definition_id uuid    not null,
    revision      integer not null,
    columns       jsonb   not null,
    primary key (definition_id, revision),
    foreign key (definition_id, revision) references definition_revision
);

-- The running state of each rule. The row that every check locks at its commit.
create table rule (
    id             uuid primary key references definition,
    state          text        not null check (state in ('DRAFT', 'ACTIVE', 'PAUSED')),
    memory_epoch   bigint      not null default 0,
    last_good_slot timestamptz,
    next_slot      timestamptz
);
create index rule_next_slot on rule (next_slot) where next_slot is not null;

-- One row for each check. Written by the check alone; every move is from RUNNING. Kept until retention takes it.
create table rule_check (
    id             uuid primary key,
    rule_id        uuid        not null references rule,
    slot           timestamptz not null,
    origin         text        not null check (origin in ('SCHEDULED', 'ON_DEMAND')),
    state          text        not null check (state in ('RUNNING', 'QUIET', 'FIRED', 'FAILED', 'PARTLY_FAILED',
                                                         'KEPT_BACK', 'STOPPED', 'STALE', 'OVERTAKEN')),
    attempt        integer     not null default 1,
    stands_for     integer     not null default 1,
    node           text        not null,
    request_key    text,
    asked_by       uuid references person,
    rule_revision  integer,
    query_revision integer,
    started_at     timestamptz not null,
    read_at        timestamptz,
    finished_at    timestamptz,
    rows_read      bigint,
    exceptions     bigint,
    unknown_rows   bigint,
    parts          jsonb,
    news           integer,
    messages       integer,
    reason         text,
    unique (rule_id, slot),
    unique (rule_id, request_key)
);
create unique index rule_check_one_running on rule_check (rule_id) where state = 'RUNNING';
create index rule_check_latest on rule_check (rule_id, slot desc);
create index rule_check_started on rule_check (started_at desc);

-- Who hears together. One for each rule until splits and personal copies come. Written by checks.
create table audience (
    id               bigint generated always as identity primary key,
    rule_id          uuid not null references rule,
    split_value      text,
    last_report_slot timestamptz,
    unique nulls not distinct (rule_id, split_value)
);

-- What is so now of each finding, and its last row. Written by the commit of a check alone, and only where something moved.
create table finding (
    id          bigint generated always as identity primary key,
    rule_id     uuid        not null references rule,
    key         uuid        not null,
    identity    jsonb       not null,
    state       text        not null check (state in ('OPEN', 'OUT_OF_SIGHT', 'CLEARED')),
    severity    text        not null check (severity in ('NOTICE', 'WARNING', 'CRITICAL')),
    fingerprint uuid        not null,
    opened_at   timestamptz not null,
    changed_at  timestamptz not null,
    row         jsonb       not null,
    unique (rule_id, key)
);
create index finding_open on finding (rule_id, severity) where state = 'OPEN';

-- Each e-mail, fixed when it is queued: the bytes that are handed over, Message-ID included.
-- Written by the commit of a check alone. Kept until retention takes it.
create table message (
    id          uuid primary key,
    rule_id     uuid        not null references rule,
    check_id    uuid        not null references rule_check,
    audience_id bigint      not null references audience,
    message_id  text        not null unique,
    subject     text        not null,
    mime        bytea       not null,
    slot        timestamptz not null,
    created_at  timestamptz not null
);
create index message_created on message (created_at desc);
create index message_rule on message (rule_id, created_at desc);

-- Where each recipient of a message stands. Written by the hand-over.
create table message_recipient (
    message_id uuid    not null references message,
    address    text    not null,
    state      text    not null check (state in ('WAITING', 'HANDING_OVER', 'SENT', 'UNSURE', 'REFUSED', 'EXPIRED', 'STOPPED')),
    tries      integer not null default 0,
    next_try   timestamptz,
    words      text,
    primary key (message_id, address)
);
create index message_recipient_unsent on message_recipient (message_id)
    where state in ('WAITING', 'HANDING_OVER', 'UNSURE');

-- Each try of a hand-over with the server's words. Written once by the hand-over.
create table recipient_try (
    id         bigint generated always as identity primary key,
    message_id uuid        not null,
    address    text        not null,
    at         timestamptz not null,
    outcome    text        not null,
    words      text        not null,
    foreign key (message_id, address) references message_recipient
);
create index recipient_try_message on recipient_try (message_id);

-- What each audience was last told, or was let pass. Written by the commit of a check, taken back when nobody got the message.
create table reported (
    finding_id  bigint      not null references finding,
    audience_id bigint      not null references audience,
    state       text        not null check (state in ('OPEN', 'OUT_OF_SIGHT', 'CLEARED')),
    severity    text        not null check (severity in ('NOTICE', 'WARNING', 'CRITICAL')),
    fingerprint uuid        not null,
    row         jsonb       not null,
    at          timestamptz not null,
    message_id  uuid references message,
    primary key (finding_id, audience_id)
);
create index reported_message on reported (message_id);

-- Which news each message told, and what was last reported before it, so that a report nobody got can be taken back.
-- Written with the message.
create table report (
    message_id         uuid   not null references message,
    finding_id         bigint not null references finding,
    audience_id        bigint not null references audience,
    kinds              text[] not null,
    before_state       text,
    before_severity    text,
    before_fingerprint uuid,
    before_row         jsonb,
    before_at          timestamptz,
    before_message_id  uuid,
    primary key (message_id, finding_id)
);

-- The history of each finding, for people and for explaining; nothing is decided from it. Written once.
create table finding_event (
    id         bigint generated always as identity primary key,
    finding_id bigint      not null references finding,
    check_id   uuid references rule_check,
    slot       timestamptz not null,
    kind       text        not null,
    severity   text        not null,
    message_id uuid references message
);
create index finding_event_finding on finding_event (finding_id, id);

-- Durable work: due checks and hand-overs. Owned by db-scheduler, whose table this is.
create table scheduled_tasks (
    task_name            text        not null,
    task_instance        text        not null,
    task_data            bytea,
    execution_time       timestamptz not null,
    picked               boolean     not null,
    picked_by            text,
    last_success         timestamptz,
    last_failure         timestamptz,
    consecutive_failures integer,
    last_heartbeat       timestamptz,
    version              bigint      not null,
    priority             smallint,
    state                text,
    primary key (task_name, task_instance)
);
create index scheduled_tasks_due on scheduled_tasks (execution_time);
create index scheduled_tasks_heartbeat on scheduled_tasks (last_heartbeat);

-- Log-in sessions of the console. Owned by Spring Session, whose tables these are; it deletes expired rows itself.
create table spring_session (
    primary_id            char(36) primary key,
    session_id            char(36) not null unique,
    creation_time         bigint   not null,
    last_access_time      bigint   not null,
    max_inactive_interval integer  not null,
    expiry_time           bigint   not null,
    principal_name        varchar(100)
);
create index spring_session_expiry on spring_session (expiry_time);
create index spring_session_principal on spring_session (principal_name);
create table spring_session_attributes (
    session_primary_id char(36)     not null references spring_session on delete cascade,
    attribute_name     varchar(200) not null,
    attribute_bytes    bytea        not null,
    primary key (session_primary_id, attribute_name)
);
