-- A program that logs in with tokens alone, and is no person: operators make its tokens.
alter table person
    add column is_service boolean not null default false,
    add constraint person_service check (not is_service or password_hash is null);
