-- The service writes when an event was recorded, by its own clock.
alter table finding_event alter column at drop default;
