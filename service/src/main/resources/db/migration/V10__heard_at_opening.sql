-- A first check may find a million rows and tell, or let pass, all of them at once. What an audience heard of a finding when it opened is kept
-- with the finding: it is what is so now, until something moves, and then it becomes a row of reported. See docs/decisions/0012.
alter table finding
    add column heard_by      bigint,
    add column heard_told    boolean not null default false,
    add column heard_message uuid;
create index finding_heard_message on finding (heard_message) where heard_message is not null;

-- What was told of a finding at the very check that opened it; one event then says both.
alter table finding_event add column heard text;

-- Events are written in the order of time, so that a range of blocks says enough.
drop index finding_event_at;
create index finding_event_at on finding_event using brin (at);
