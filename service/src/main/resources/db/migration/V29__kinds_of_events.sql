-- Kinds of events were English sentences, cut up again where they were shown. They are names now; which updates a report had stands beside.
alter table finding_event rename column heard to at_opening;
alter table finding_event add column updates text[];

update finding_event
   set updates = case
           when at_opening like 'reported as %' then string_to_array(substr(at_opening, length('reported as ') + 1), ', ')
           when kind like 'reported as %' then string_to_array(substr(kind, length('reported as ') + 1), ', ') end,
       at_opening = case
           when at_opening like 'reported%' then 'REPORTED'
           when at_opening is not null then 'TREATED_AS_KNOWN' end,
       kind = case
           when kind like 'reported%' then 'REPORTED'
           when kind like 'escalated%' then 'ESCALATED'
           when kind = 'back in the date window' then 'BACK_IN_WINDOW'
           when kind = 'back before confirm_after' then 'BACK_BEFORE_CONFIRMED'
           when kind = 'no longer taken' then 'TAKE_WITHDRAWN'
           when kind = 'no longer snoozed' then 'SNOOZE_WITHDRAWN'
           when kind = 'no longer accepted' then 'ACCEPT_WITHDRAWN'
           else upper(replace(kind, ' ', '_')) end;

alter table finding_event
    add check (at_opening in ('REPORTED', 'TREATED_AS_KNOWN')),
    add check (kind in ('PENDING', 'PENDING_AGAIN', 'FORGOTTEN_WHILE_PENDING', 'OPENED', 'OPENED_AGAIN', 'BACK_IN_WINDOW',
        'BACK_BEFORE_CONFIRMED', 'SEVERITY_CHANGED', 'VALUES_CHANGED', 'MISSED', 'NO_DATA', 'CLEARED', 'AGED_OUT', 'REPORTED',
        'TREATED_AS_KNOWN', 'ESCALATED', 'TAKEN', 'SNOOZED', 'ACCEPTED', 'TAKE_WITHDRAWN', 'SNOOZE_WITHDRAWN', 'ACCEPT_WITHDRAWN',
        'TAKE_ENDED', 'SNOOZE_ENDED', 'ACCEPT_ENDED'));
