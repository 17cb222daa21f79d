-- In which language a reader wants mail, whoever sends it. Written by people; kept until they change it.
create table reader_language (
    address  text primary key check (address = lower(address)),
    language text        not null check (language in ('EN', 'DE', 'NB')),
    set_by   uuid        not null references person,
    set_at   timestamptz not null
);
