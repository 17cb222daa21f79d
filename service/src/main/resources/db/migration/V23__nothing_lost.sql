-- A hand-over whose end is not known is tried again until it expires; if the last try fails or is refused, nobody knows whether the recipient has the
-- message. Only a person decides what follows.
alter table message_recipient drop constraint message_recipient_state_check;
alter table message_recipient add constraint message_recipient_state_check
    check (state in ('WAITING', 'HANDING_OVER', 'SENT', 'UNSURE', 'UNCONFIRMED', 'REFUSED', 'EXPIRED', 'STOPPED'));
create index message_recipient_unconfirmed on message_recipient (message_id) where state = 'UNCONFIRMED';

-- Until now one was tried twice and then left as it was, without a word to anybody.
update message_recipient set state = 'UNCONFIRMED' where state = 'UNSURE' and next_try is null;

-- When somebody has settled what became of the message: sent it again, had it reported again, or found that it had arrived.
alter table message_recipient add column settled_at timestamptz;

-- When the owner of a rule or a round-up was told that its mail did not arrive, or may not have. Written with the notice.
create table delivery_notice (
    id            bigint generated always as identity primary key,
    definition_id uuid        not null references definition,
    message_id    uuid        not null references message on delete cascade,
    kind          text        not null check (kind in ('REFUSED', 'UNCONFIRMED')),
    told_at       timestamptz not null
);
create index delivery_notice_definition on delivery_notice (definition_id, kind, told_at desc);
create index delivery_notice_message on delivery_notice (message_id);

-- Hand-overs have workers of their own, so that a mail server that hangs keeps no check waiting. Owned by db-scheduler like scheduled_tasks.
create table mail_tasks (like scheduled_tasks including all);
insert into mail_tasks select * from scheduled_tasks where task_name = 'hand-over';
update mail_tasks set picked = false, picked_by = null, last_heartbeat = null;
delete from scheduled_tasks where task_name = 'hand-over';

-- The processes of this installation, as each of them says it every few seconds. Nothing is decided from it.
create table node (
    name           text primary key,
    seen_at        timestamptz not null,
    started_at     timestamptz not null,
    clock_ahead_ms bigint      not null,
    takes_work     boolean     not null
);

-- Something that the key has sealed. A service that cannot open it has another key, and does not start.
create table key_proof (
    only_one boolean primary key default true check (only_one),
    sealed   bytea not null
);

-- An edit and a wish to have told what is open may come together.
alter table rule drop constraint rule_on_next_check_check;
alter table rule add constraint rule_on_next_check_check
    check (on_next_check in ('ORDINARY', 'RE_BASE', 'TELL_OPEN', 'RE_JUDGE', 'RE_JUDGE_TELL_OPEN', 'TAKE_AS_KNOWN', 'START_ANEW', 'START_ANEW_AS_KNOWN'));
alter table rule_copy drop constraint rule_copy_on_next_check_check;
alter table rule_copy add constraint rule_copy_on_next_check_check
    check (on_next_check in ('ORDINARY', 'RE_BASE', 'TELL_OPEN', 'RE_JUDGE', 'RE_JUDGE_TELL_OPEN', 'TAKE_AS_KNOWN', 'START_ANEW', 'START_ANEW_AS_KNOWN'));

-- Rules without a condition watch the columns that are sent from now on: their next check takes those as they are, without calling it a change.
update rule set on_next_check = 'RE_BASE'
 where on_next_check = 'ORDINARY'
   and id in (select definition.id
                from definition
                join definition_revision on definition_id = definition.id and definition_revision.revision = definition.revision
               where document ->> 'exceptions' is null);
update rule_copy set on_next_check = 'RE_BASE'
 where on_next_check = 'ORDINARY' and rule_id in (select id from rule where on_next_check = 'RE_BASE');
