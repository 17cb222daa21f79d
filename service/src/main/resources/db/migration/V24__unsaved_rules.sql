-- A rule can be tried on past slots before it is saved.
alter table long_work alter column rule_id drop not null;
