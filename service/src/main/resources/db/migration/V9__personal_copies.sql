-- Personal copies: each row of a recipient query has a check of its own within the rule's, and a memory of its own.

-- The key of the copy that found it; null where the rule has none. Written with the row.
alter table finding add column copy_key text;
create index finding_copy on finding (rule_id, copy_key) where copy_key is not null;

-- The copy that an audience belongs to.
alter table audience
    add column copy_key text,
    drop constraint audience_rule_id_split_value_key,
    add constraint audience_who unique nulls not distinct (rule_id, copy_key, split_value);

-- The copy that a series or a group belongs to. Their group keys differ by copy, so these are for reading.
alter table series add column copy_key text;
alter table seen_group add column copy_key text;

-- The personal copies that a rule has had. Written by checks; kept as long as the rule, since one that rests may come back.
create table rule_copy (
    rule_id        uuid    not null references rule,
    copy_key       text    not null,
    newcomer       boolean not null,
    good_slots     bigint  not null default 0,
    last_good_slot timestamptz,
    on_next_check  text    not null default 'ORDINARY'
        check (on_next_check in ('ORDINARY', 'RE_BASE', 'TELL_OPEN', 'RE_JUDGE', 'TAKE_AS_KNOWN', 'START_ANEW', 'START_ANEW_AS_KNOWN')),
    primary key (rule_id, copy_key)
);

-- How each personal copy of a check went. Written by the check; goes with it.
create table check_copy (
    check_id     uuid    not null references rule_check on delete cascade,
    copy_key     text    not null,
    attempt      integer not null,
    memory_epoch bigint  not null,
    state        text    not null check (state in ('QUIET', 'FIRED', 'NOT_JUDGED', 'FAILED', 'KEPT_BACK')),
    addresses    text[]  not null,
    reason       text,
    rows_read    bigint,
    exceptions   bigint,
    unknown_rows bigint,
    not_judged   bigint,
    opened       bigint,
    cleared      bigint,
    news         integer,
    messages     integer,
    took_ms      integer,
    finished_at  timestamptz not null,
    primary key (check_id, copy_key)
);
