-- Checks that run unwatched: stopped, kept back, tried again; what each was reckoned with; who hears of trouble.

alter table rule_check
    add column asked_to_run_at timestamptz,
    -- Rows read so far, while it runs.
    add column rows_so_far    bigint,
    add column took_ms        integer,
    add column time_limit_ms  integer,
    add column timed_out      boolean not null default false,
    -- Attempts that failed and are to be tried again, and when.
    add column failures       integer not null default 0,
    add column retry_at       timestamptz,
    -- A person looked at what was kept back, and let it through.
    add column released_by    uuid references person,
    add column source_name    text,
    add column parameters     jsonb,
    add column thresholds     jsonb,
    add column opened         bigint,
    add column cleared        bigint;
create index rule_check_kept_back on rule_check (rule_id) where state = 'KEPT_BACK';
create index rule_check_good on rule_check (rule_id, slot desc) where state in ('QUIET', 'FIRED', 'NOT_JUDGED');

-- Planned hours in which a source is not asked, such as 22:00-04:30 of a time zone; and how long checks may be spread.
alter table source
    add column closed_from    time,
    add column closed_until   time,
    add column closed_zone    text,
    add constraint source_closed check ((closed_from is null) = (closed_until is null) and (closed_from is null) = (closed_zone is null));

-- Who hears of trouble with the rules of a team, which the rules name as their owner. Written by operators.
create table team (
    name       text primary key,
    addresses  text[]      not null check (cardinality(addresses) > 0),
    updated_at timestamptz not null
);

-- One cause of failing checks, from its first failure until it is over. Written by checks and by the one who mails of it.
create table trouble (
    id         bigint generated always as identity primary key,
    cause      text        not null,
    began_at   timestamptz not null,
    mailed_at  timestamptz,
    over_at    timestamptz
);
create unique index trouble_live on trouble (cause) where over_at is null;

-- The rules that a trouble has hit, and how each stands.
create table trouble_rule (
    trouble_id bigint      not null references trouble,
    rule_id    uuid        not null references rule,
    failures   integer     not null,
    reason     text        not null,
    last_at    timestamptz not null,
    well_at    timestamptz,
    primary key (trouble_id, rule_id)
);
create index trouble_rule_rule on trouble_rule (rule_id) where well_at is null;

-- Mail of trouble belongs to no check and no audience.
alter table message
    add column trouble_id bigint references trouble,
    alter column rule_id drop not null,
    alter column check_id drop not null,
    alter column audience_id drop not null,
    add constraint message_of check ((trouble_id is null) = (rule_id is not null and check_id is not null and audience_id is not null));

alter table definition drop constraint definition_kind_check;
alter table definition add constraint definition_kind_check check (kind in ('QUERY', 'RULE', 'THRESHOLD', 'CALENDAR'));

-- Addresses under which calendar programs read the schedules. Written by the person; a new one replaces the old.
create table feed (
    person_id  uuid primary key references person,
    hash       bytea       not null unique,
    created_at timestamptz not null
);
