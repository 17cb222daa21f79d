-- Memory in full: the guard, differences that stand, reminders, marks of people, what an edit owes.

alter table finding
    add column better_ordinal bigint,
    add column better_slot    timestamptz,
    -- What is so now differs from what was reported, and a later check is to tell it.
    add column standing       boolean not null default false;

alter table reported add column told_at timestamptz;
update reported set told_at = at where message_id is not null;
alter table report add column before_told_at timestamptz;
update report set before_told_at = before_at where before_message_id is not null;

update finding f set standing = true
where (state in ('OPEN', 'OUT_OF_SIGHT') and not exists (select 1 from reported r where r.finding_id = f.id))
   or exists (select 1 from reported r where r.finding_id = f.id
              and (r.fingerprint <> f.fingerprint or r.severity <> f.severity or (r.state = 'CLEARED') <> (f.state = 'CLEARED')));
create index finding_standing on finding (rule_id) where standing or state = 'PENDING';

-- What people have said of a finding. Written by people; only where what is so now ends one does a check write its end.
create table mark (
    id          bigint generated always as identity primary key,
    finding_id  bigint      not null references finding,
    kind        text        not null check (kind in ('TAKE', 'SNOOZE', 'ACCEPT')),
    person_id   uuid        not null references person,
    at          timestamptz not null,
    note        text        not null,
    severity    text        not null check (severity in ('NOTICE', 'WARNING', 'CRITICAL')),
    until       timestamptz,
    ended_at    timestamptz,
    ended_by    uuid references person,
    ended_check uuid references rule_check
);
create unique index mark_live on mark (finding_id, kind) where ended_at is null;
create index mark_finding on mark (finding_id);

-- What the next good check owes to an edit, or to being made active. Written by people, taken back to ORDINARY by the check.
alter table rule add column on_next_check text not null default 'ORDINARY'
    check (on_next_check in ('ORDINARY', 'RE_BASE', 'TELL_OPEN', 'RE_JUDGE', 'TAKE_AS_KNOWN', 'START_ANEW', 'START_ANEW_AS_KNOWN'));

-- Events of people have no slot, but an instant; those of checks have both.
alter table finding_event
    alter column slot drop not null,
    add column at        timestamptz not null default now(),
    add column person_id uuid references person,
    add column note      text;
create index finding_event_check on finding_event (check_id);
