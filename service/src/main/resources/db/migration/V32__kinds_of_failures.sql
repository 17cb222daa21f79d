-- What made a check fail is a value, which each reader gets in their own language; the reason says it for the console, as before.
alter table rule_check add failure text;
alter table rule_check add check (failure in ('SOURCE_UNREACHABLE', 'SOURCE_BUSY', 'SOURCE_REFUSED', 'TIME_LIMIT',
    'RESULT_TOO_LARGE', 'QUERY_INVALID', 'QUERY_STOPPED', 'RULE_INVALID', 'NAMED_QUERY', 'CONDITION', 'SAME_KEY',
    'EMPTY_RESULT', 'NOT_READY', 'RECIPIENTS', 'FILE_PASSWORD', 'MEMORY', 'SERVICE_ENDED', 'DISK_FULL',
    'SAFETY_LIMITS', 'PERSONAL_COPIES', 'INTERNAL'));
alter table incident_rule add failure text;
alter table incident_rule add check (failure in ('SOURCE_UNREACHABLE', 'SOURCE_BUSY', 'SOURCE_REFUSED', 'TIME_LIMIT',
    'RESULT_TOO_LARGE', 'QUERY_INVALID', 'QUERY_STOPPED', 'RULE_INVALID', 'NAMED_QUERY', 'CONDITION', 'SAME_KEY',
    'EMPTY_RESULT', 'NOT_READY', 'RECIPIENTS', 'FILE_PASSWORD', 'MEMORY', 'SERVICE_ENDED', 'DISK_FULL',
    'SAFETY_LIMITS', 'PERSONAL_COPIES', 'INTERNAL'));

-- An incident's cause was a phrase, with the name inside.
drop index trouble_live;
alter table incident add kind text;
alter table incident rename column cause to name;
update incident
   set kind = case
           when name like 'source %' then 'SOURCE'
           when name like 'awaiting approval: %' then 'AWAITING_APPROVAL'
           when name like 'no rows from %' then 'NO_ROWS'
           when name = 'mail reaches nobody' then 'MAIL_UNDELIVERED'
           when name = 'mail unconfirmed' then 'MAIL_UNCONFIRMED'
           when name like 'mail to %' then 'MAIL_BLOCKED'
           else 'RULE' end;
update incident
   set name = case kind
           when 'SOURCE' then substr(name, length('source ') + 1)
           when 'AWAITING_APPROVAL' then substr(name, length('awaiting approval: ') + 1)
           when 'NO_ROWS' then substr(name, length('no rows from ') + 1)
           when 'MAIL_BLOCKED' then substr(name, length('mail to ') + 1)
           when 'MAIL_UNDELIVERED' then ''
           when 'MAIL_UNCONFIRMED' then ''
           else regexp_replace(name, '^rule ', '') end;
alter table incident alter kind set not null;
alter table incident add check (kind in ('SOURCE', 'RULE', 'AWAITING_APPROVAL', 'NO_ROWS', 'MAIL_UNDELIVERED',
    'MAIL_UNCONFIRMED', 'MAIL_BLOCKED'));
create unique index incident_live on incident (kind, name) where over_at is null;
