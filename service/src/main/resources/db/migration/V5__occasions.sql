-- Checks that are begun by outside events and by other rules, checks that wait, and how long checks are spread.

-- The outside events that a rule hears of. Written when the rule is saved, from its document.
create table rule_event (
    rule_id uuid not null references rule,
    event   text not null,
    primary key (rule_id, event)
);
create index rule_event_event on rule_event (event);

-- The rules that a rule follows, and after which of their outcomes. Written when the rule is saved, from its document.
create table rule_after (
    rule_id   uuid   not null references rule,
    parent_id uuid   not null references rule,
    outcomes  text[] not null check (outcomes <@ array['FIRED', 'QUIET', 'FAILED', 'BLANK'] and cardinality(outcomes) > 0),
    primary key (rule_id, parent_id)
);
create index rule_after_parent on rule_after (parent_id);

-- Occasions for a check: arrivals of events, and checks of a rule that is followed. Written by whoever reports the event and by the
-- end of a check; the check that answers it is named here when it begins.
create table occasion (
    id          bigint generated always as identity primary key,
    rule_id     uuid        not null references rule,
    slot        timestamptz not null,
    event       text,
    given       jsonb,
    parent_id   uuid references rule_check,
    request_key text,
    check_id    uuid references rule_check,
    check ((event is null) <> (parent_id is null))
);
create index occasion_waiting on occasion (rule_id, id) where check_id is null;
create unique index occasion_of_parent on occasion (rule_id, parent_id) where parent_id is not null;
create unique index occasion_of_key on occasion (rule_id, request_key) where request_key is not null;

alter table rule_check
    drop constraint rule_check_origin_check,
    add constraint rule_check_origin_check check (origin in ('SCHEDULED', 'ON_DEMAND', 'EVENT', 'CHAINED')),
    -- The event that began it, and the values it brought for the query's parameters.
    add column event       text,
    add column given       jsonb,
    -- The check that began it.
    add column parent_id   uuid references rule_check,
    -- What it waits for before it asks the source, while retry_at says when it looks again.
    add column waiting_for text check (waiting_for in ('SOURCE_OPEN', 'READY'));

-- Checks of one source begin up to so long after their slots, each rule always as long.
alter table source
    add column spread_seconds integer not null default 0 check (spread_seconds between 0 and 60);
