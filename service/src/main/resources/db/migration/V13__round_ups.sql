-- A round-up is an audience of several rules that hears at times of its own, in one mail. One row for each; written when it is saved,
-- paused or sent, and kept as long as its definition.
alter table definition drop constraint definition_kind_check;
alter table definition add constraint definition_kind_check
    check (kind in ('QUERY', 'RULE', 'THRESHOLD', 'CALENDAR', 'ROUND_UP'));

create table round_up (
    id        uuid primary key references definition,
    paused    boolean not null default false,
    next_slot timestamptz,
    -- The last one that was gone through, whether it had anything to say or not.
    last_slot timestamptz
);

alter table audience
    add column round_up_id uuid references round_up,
    drop constraint audience_who,
    add constraint audience_who unique nulls not distinct (rule_id, copy_key, split_value, round_up_id);
create index audience_round_up on audience (round_up_id) where round_up_id is not null;

alter table message
    add column round_up_id uuid references round_up,
    drop constraint message_of,
    add constraint message_of check (
        num_nonnulls(trouble_id, round_up_id, check_id) = 1
        and (check_id is null) = (rule_id is null) and (check_id is null) = (audience_id is null));

-- A round-up that no longer names a rule is no audience of it any more; what it was told stays told.
alter table report drop constraint report_audience_id_fkey;
