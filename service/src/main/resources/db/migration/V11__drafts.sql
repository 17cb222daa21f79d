-- An edit of a rule that lies beside it until someone switches to it. One for each rule. Written by people; deleted when it is switched to, or
-- thrown away.
create table rule_draft (
    rule_id       uuid primary key references rule,
    version       integer     not null check (version > 0),
    document      json        not null,
    base_revision integer     not null,
    author_id     uuid        not null references person,
    at            timestamptz not null
);
