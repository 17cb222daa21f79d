-- Layouts that several rules use under a name.
alter table definition drop constraint definition_kind_check;
alter table definition add constraint definition_kind_check
    check (kind in ('QUERY', 'RULE', 'THRESHOLD', 'CALENDAR', 'LAYOUT', 'ROUND_UP'));

-- The password with which a rule encrypts its files, sealed with the installation's key. Written by the person; kept as long as the rule.
create table rule_password (
    rule_id uuid primary key references rule,
    sealed  bytea       not null,
    set_at  timestamptz not null
);
