-- How a person likes to see a table of the console. Written by the console; nothing else is decided from it.
create table table_view (
    person_id  uuid        not null references person,
    table_name text        not null check (length(table_name) between 1 and 120),
    hidden     jsonb       not null,
    widths     jsonb       not null,
    at         timestamptz not null,
    primary key (person_id, table_name)
);
