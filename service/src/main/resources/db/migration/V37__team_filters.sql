-- Saved filters that a team shares: with a team, person_id is who saved it last.
alter table saved_filter
    add column team text references team on update cascade on delete cascade,
    drop constraint saved_filter_pkey;
create unique index saved_filter_of_person on saved_filter (person_id, name) where team is null;
create unique index saved_filter_of_team on saved_filter (team, name) where team is not null;
