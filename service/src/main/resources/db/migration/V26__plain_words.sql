-- States, outcomes and kinds of update get the names that people read everywhere. One name for each thing: in the database, the API, files and pages.
alter table finding drop constraint finding_state_check;
alter table reported drop constraint reported_state_check;
alter table forgotten drop constraint forgotten_state_check;
drop index finding_over;
update finding set state = 'AGED_OUT' where state = 'OUT_OF_SIGHT';
update reported set state = 'AGED_OUT' where state = 'OUT_OF_SIGHT';
update forgotten set state = 'AGED_OUT' where state = 'OUT_OF_SIGHT';
update report set before_state = 'AGED_OUT' where before_state = 'OUT_OF_SIGHT';
alter table finding add constraint finding_state_check check (state in ('PENDING', 'OPEN', 'AGED_OUT', 'CLEARED'));
alter table reported add constraint reported_state_check check (state in ('OPEN', 'AGED_OUT', 'CLEARED'));
alter table forgotten add constraint forgotten_state_check check (state in ('AGED_OUT', 'CLEARED'));
create index finding_over on finding (rule_id, changed_at) where state in ('AGED_OUT', 'CLEARED');

alter table rule_check drop constraint rule_check_state_check;
alter table check_copy drop constraint check_copy_state_check;
drop index rule_check_kept_back;
drop index rule_check_good;
update rule_check
   set state = case state
         when 'NOT_JUDGED' then 'INCOMPLETE'
         when 'KEPT_BACK' then 'AWAITING_APPROVAL'
         when 'STALE' then 'RESTARTED'
         else 'SKIPPED' end
 where state in ('NOT_JUDGED', 'KEPT_BACK', 'STALE', 'OVERTAKEN');
update check_copy
   set state = case state when 'NOT_JUDGED' then 'INCOMPLETE' else 'AWAITING_APPROVAL' end
 where state in ('NOT_JUDGED', 'KEPT_BACK');
alter table rule_check add constraint rule_check_state_check
    check (state in ('RUNNING', 'QUIET', 'FIRED', 'INCOMPLETE', 'FAILED', 'PARTLY_FAILED', 'AWAITING_APPROVAL', 'STOPPED', 'RESTARTED', 'SKIPPED'));
alter table check_copy add constraint check_copy_state_check
    check (state in ('QUIET', 'FIRED', 'INCOMPLETE', 'FAILED', 'AWAITING_APPROVAL'));
create index rule_check_awaiting_approval on rule_check (rule_id) where state = 'AWAITING_APPROVAL';
create index rule_check_good on rule_check (rule_id, slot desc) where state in ('QUIET', 'FIRED', 'INCOMPLETE');

alter table message_recipient drop constraint message_recipient_state_check;
drop index message_recipient_unsent;
update message_recipient
   set state = case state
         when 'WAITING' then 'QUEUED'
         when 'HANDING_OVER' then 'SENDING'
         when 'REFUSED' then 'REJECTED'
         else 'CANCELLED' end
 where state in ('WAITING', 'HANDING_OVER', 'REFUSED', 'STOPPED');
update recipient_try
   set outcome = case outcome
         when 'WAITING' then 'QUEUED'
         when 'HANDING_OVER' then 'SENDING'
         when 'REFUSED' then 'REJECTED'
         else 'CANCELLED' end
 where outcome in ('WAITING', 'HANDING_OVER', 'REFUSED', 'STOPPED');
alter table message_recipient add constraint message_recipient_state_check
    check (state in ('QUEUED', 'SENDING', 'SENT', 'UNSURE', 'UNCONFIRMED', 'REJECTED', 'EXPIRED', 'CANCELLED'));
create index message_recipient_unsent on message_recipient (message_id)
    where state in ('QUEUED', 'SENDING', 'UNSURE');

alter table rule_after drop constraint rule_after_outcomes_check;
update rule_after set outcomes = array_replace(outcomes, 'BLANK', 'NO_ROWS');
alter table rule_after add constraint rule_after_outcomes_check
    check (outcomes <@ array['FIRED', 'QUIET', 'FAILED', 'NO_ROWS'] and cardinality(outcomes) > 0);

update report
   set kinds = array_replace(array_replace(kinds, 'eased', 'improved'), 'moved away', 'moved')
 where kinds && array['eased', 'moved away'];
update finding_event
   set kind = case kind
         when 'out of sight' then 'aged out'
         when 'let pass' then 'treated as known'
         when 'back in sight' then 'back in the date window'
         when 'back within the guard' then 'back before confirm_after'
         else replace(replace(kind, 'eased', 'improved'), 'moved away', 'moved') end
 where kind in ('out of sight', 'let pass', 'back in sight', 'back within the guard') or kind like 'reported as%';
update finding_event
   set heard = case heard when 'let pass' then 'treated as known' else replace(replace(heard, 'eased', 'improved'), 'moved away', 'moved') end
 where heard = 'let pass' or heard like 'reported as%';
update trouble
   set cause = replace(cause, 'kept back: ', 'awaiting approval: ')
 where cause like 'kept back: %';
