-- What is left of findings that were forgotten, so that an explanation can say so. Written by retention, taken away a year later.
create table forgotten (
    rule_id      uuid        not null references rule,
    key          uuid        not null,
    state        text        not null check (state in ('OUT_OF_SIGHT', 'CLEARED')),
    opened_at    timestamptz not null,
    changed_at   timestamptz not null,
    forgotten_at timestamptz not null,
    primary key (rule_id, key)
);

-- Old rows are found by age.
create index rule_check_finished on rule_check (finished_at) where finished_at is not null;
create index finding_over on finding (rule_id, changed_at) where state in ('OUT_OF_SIGHT', 'CLEARED');
create index finding_event_at on finding_event (at);
create index finding_event_message on finding_event (message_id) where message_id is not null;
create index report_finding on report (finding_id);
create index audit_event_at on audit_event (at);
