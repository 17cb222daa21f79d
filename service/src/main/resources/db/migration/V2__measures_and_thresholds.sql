-- Thresholds, groups with their history, holds, back-tests.

alter table definition drop constraint definition_kind_check;
alter table definition add constraint definition_kind_check check (kind in ('QUERY', 'RULE', 'THRESHOLD'));

-- jsonb forgets the order of fields, but measures may name those before them, and parameters are shown as written.
alter table definition_revision alter column document type json using document::json;

-- Every value that a threshold was ever given, and by whom. Written by analysts; a row is never changed or deleted:
-- of two rows for one key and date the later stands, and one without a number takes the value back.
create table threshold_value (
    id           bigint generated always as identity primary key,
    threshold_id uuid        not null references definition,
    key          text[]      not null,
    valid_from   date,
    number       numeric,
    set_by       uuid        not null references person,
    set_at       timestamptz not null,
    remark       text        not null
);
create index threshold_value_threshold on threshold_value (threshold_id, id desc);

-- How many good scheduled checks a rule has had: what holds and misses count by.
alter table rule add column good_slots bigint not null default 0;

alter table rule_check drop constraint rule_check_state_check;
alter table rule_check add constraint rule_check_state_check
    check (state in ('RUNNING', 'QUIET', 'FIRED', 'NOT_JUDGED', 'FAILED', 'PARTLY_FAILED', 'KEPT_BACK', 'STOPPED', 'STALE',
                     'OVERTAKEN'));
-- The groups that could not be judged, the first of them named: [{"group":…,"reason":…}].
alter table rule_check add column not_judged bigint, add column not_judged_groups jsonb;

alter table finding drop constraint finding_state_check;
alter table finding add constraint finding_state_check check (state in ('PENDING', 'OPEN', 'OUT_OF_SIGHT', 'CLEARED'));
alter table finding
    add column held_ordinal   bigint,
    add column held_slot      timestamptz,
    add column missed_ordinal bigint,
    add column missed_slot    timestamptz,
    add column no_data        boolean not null default false;

-- One measured value of one group, with the digest of what it means. Written by checks and by filling in history.
create table series (
    id         bigint generated always as identity primary key,
    rule_id    uuid  not null references rule,
    group_key  uuid  not null,
    group_name jsonb not null,
    measured   text  not null,
    meaning    uuid  not null,
    unique (rule_id, group_key, meaning)
);
create index series_meaning on series (rule_id, meaning);

-- One value for each slot. Written by good scheduled checks, and by filling in history.
create table series_point (
    series_id bigint      not null references series,
    slot      timestamptz not null,
    value     numeric     not null,
    filled_in boolean     not null,
    primary key (series_id, slot)
);

-- Which groups a rule has seen, and at which of its good scheduled checks last. Written by checks of rules that expect them again.
create table seen_group (
    rule_id    uuid   not null references rule,
    group_key  uuid   not null,
    group_name jsonb  not null,
    last_seen  bigint not null,
    primary key (rule_id, group_key)
);

-- Long work that a person asked for: back-tests, and filling in history. Written by the node that does it; kept thirty days.
create table long_work (
    id         uuid primary key,
    kind       text        not null check (kind in ('BACK_TEST', 'FILL_HISTORY')),
    rule_id    uuid        not null references rule,
    asked_by   uuid        not null references person,
    asked_at   timestamptz not null,
    ask        jsonb       not null,
    state      text        not null check (state in ('WAITING', 'RUNNING', 'DONE', 'FAILED', 'STOPPED')),
    steps_done integer     not null default 0,
    steps      integer     not null default 0,
    result     jsonb,
    reason     text,
    ended_at   timestamptz
);
create index long_work_rule on long_work (rule_id, asked_at desc);
