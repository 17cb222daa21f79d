-- The worst that a check reported, so that a strip of checks can show it without its findings. Null where it reported nothing, where it
-- is older than this column, and where personal copies reported each for itself.
alter table rule_check
    add column worst_news text check (worst_news in ('NOTICE', 'WARNING', 'CRITICAL'));

-- Ways of looking at the list of rules that a person keeps. Written and read by that person alone.
create table saved_filter (
    person_id uuid        not null references person,
    name      text        not null check (length(name) between 1 and 80),
    filter    text        not null check (length(filter) <= 2000),
    at        timestamptz not null,
    primary key (person_id, name)
);

-- What happened in a day, over all rules.
create index rule_check_slot on rule_check (slot);
