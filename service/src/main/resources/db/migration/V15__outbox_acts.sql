-- A message may be a preview that a person sent to themselves, which reports nothing; or a repeat of another, as the same bytes under an id of
-- its own.
alter table message
    add column preview_of uuid references rule,
    add column repeat_of  uuid references message,
    drop constraint message_of,
    add constraint message_of check (
        num_nonnulls(trouble_id, round_up_id, check_id, preview_of) = 1
        and (check_id is null) = (rule_id is null) and (check_id is null) = (audience_id is null));

-- Outgoing mail that is held: all of it, that of rules on a source, or that of one rule. Written by people; one that is ended stays.
create table mail_hold (
    id         bigint generated always as identity primary key,
    source     text,
    rule_id    uuid references rule,
    why        text        not null,
    held_by    uuid        not null references person,
    held_at    timestamptz not null,
    ended_by   uuid references person,
    ended_at   timestamptz,
    check (source is null or rule_id is null)
);
create index mail_hold_standing on mail_hold (id) where ended_at is null;
