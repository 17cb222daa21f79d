-- One connection of each source is for what people run by hand, so that checks never wait for it: a source has two at least.
update source set most_connections = 2 where most_connections < 2;
alter table source add constraint source_two_connections check (most_connections >= 2);

-- Passwords inside addresses are refused now. Those that were saved with one stay in the source's row, where the service puts them under its key at its
-- next start; nobody else needs them.
update audit_event
   set detail = regexp_replace(detail, '([?&](ssl)?password=)[^&]*', '\1…', 'gi')
 where act = 'save source' and detail ~* '[?&](ssl)?password=';

-- How often the service ended while it ran the check: neither failed nor finished. Over a limit the check fails instead of ending the service once more.
alter table rule_check add column interruptions smallint not null default 0;
