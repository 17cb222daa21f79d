-- Where the records stood when this installation last started on them, so that a restored or copied database is known for one.
alter table installation
    add column place      text,
    add column name       text,
    -- The transaction that wrote this row. A restored dump writes it anew, in another.
    add column written_by bigint;

-- The service itself holds mail where it finds itself on such a database.
alter table mail_hold alter column held_by drop not null;
