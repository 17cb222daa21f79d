-- People write what they did about a finding, without a mark on it.
alter table finding_event
    drop constraint finding_event_kind_check,
    add constraint finding_event_kind_check check (kind in ('PENDING', 'PENDING_AGAIN', 'FORGOTTEN_WHILE_PENDING', 'OPENED',
        'OPENED_AGAIN', 'BACK_IN_WINDOW', 'BACK_BEFORE_CONFIRMED', 'SEVERITY_CHANGED', 'VALUES_CHANGED', 'MISSED', 'NO_DATA',
        'CLEARED', 'AGED_OUT', 'REPORTED', 'TREATED_AS_KNOWN', 'ESCALATED', 'TAKEN', 'SNOOZED', 'ACCEPTED', 'TAKE_WITHDRAWN',
        'SNOOZE_WITHDRAWN', 'ACCEPT_WITHDRAWN', 'TAKE_ENDED', 'SNOOZE_ENDED', 'ACCEPT_ENDED', 'NOTED'));
