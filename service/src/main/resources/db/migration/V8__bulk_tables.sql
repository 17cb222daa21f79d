-- A first check may write a million findings with what was reported of each and an event for each. Looking up the same rule, check
-- and audience a million times took longer than all the rest, so these tables name them without a foreign key: they are written in the
-- transaction that writes or locks what they name, and retention takes them away before it. See docs/decisions/0010.
alter table finding drop constraint finding_rule_id_fkey;
alter table finding_event
    drop constraint finding_event_check_id_fkey,
    drop constraint finding_event_finding_id_fkey,
    drop constraint finding_event_message_id_fkey;
alter table reported
    drop constraint reported_finding_id_fkey,
    drop constraint reported_audience_id_fkey,
    drop constraint reported_message_id_fkey;

-- Few findings go by split value, and events are found by their finding; what is left is what a check of a million writes to.
drop index finding_open_split;
create index finding_open_split on finding (rule_id, split_value) where state = 'OPEN' and split_value is not null;
