-- What a message's mail cannot carry, or must not: kept behind log-in, and goes with the message.
create table message_file (
    message_id uuid    not null references message on delete cascade,
    place      integer not null,
    name       text    not null,
    media_type text    not null,
    bytes      bytea   not null,
    primary key (message_id, place)
);

alter table message
    -- The first line that it gets where it is handed over late; null for none, or where it has it.
    add column late_words text,
    -- Whether each reader gets a link of their own that stops these mails.
    add column may_leave  boolean not null default false;

-- Readers who stopped the mails of a rule or a round-up, by the link in the message. Kept as long as the definition.
create table leaver (
    definition_id uuid        not null references definition,
    address       text        not null check (address = lower(address)),
    message_id    uuid        not null,
    left_at       timestamptz not null,
    returned_at   timestamptz,
    returned_by   uuid references person
);
create unique index leaver_gone on leaver (definition_id, address) where returned_at is null;

-- Addresses to which mail comes back for good. Nothing goes there until a person says that it is right again.
create table bad_address (
    address    text        not null check (address = lower(address)),
    words      text        not null,
    message_id uuid        not null,
    since      timestamptz not null,
    ended_at   timestamptz,
    ended_by   uuid references person
);
create unique index bad_address_now on bad_address (address) where ended_at is null;
