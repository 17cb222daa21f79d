-- What nobody has taken is passed on. How far it was looked for, of each rule that passes on: written by the look, which goes on from there.
create table escalation (
    rule_id   uuid primary key references rule,
    -- Mails queued up to then have been looked at.
    told_to   timestamptz not null,
    -- Marks that ended up to then have been looked at.
    looked_at timestamptz not null
);

-- What was passed on, once for each opening of a finding. Goes with the finding.
create table escalated (
    finding_id bigint primary key,
    opened_at  timestamptz not null,
    message_id uuid        not null,
    at         timestamptz not null
);

alter table message
    add column escalation_of uuid references rule,
    drop constraint message_of,
    add constraint message_of check (
        num_nonnulls(trouble_id, round_up_id, check_id, preview_of, escalation_of) = 1
        and (check_id is null) = (rule_id is null) and (check_id is null) = (audience_id is null));

create index message_rule_created on message (rule_id, created_at) where rule_id is not null;
