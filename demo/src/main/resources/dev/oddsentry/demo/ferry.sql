-- Skerry Line's own database, as the demo's queries read it. All of it is made up.
create table terminal (
    terminal_id          integer primary key,
    name                 text not null unique,
    duty_manager         text not null,
    duty_manager_address text
);
create table vessel (
    vessel_id integer primary key,
    name      text not null unique,
    seats     integer not null
);
create table route (
    route_id      integer primary key,
    name          text not null unique,
    from_terminal integer not null references terminal,
    to_terminal   integer not null references terminal,
    miles         numeric(6, 1) not null
);
create table sailing (
    sailing_id        bigint generated always as identity primary key,
    number            text not null,
    route_id          integer not null references route,
    vessel_id         integer not null references vessel,
    planned_departure timestamptz not null,
    actual_departure  timestamptz,
    tickets_sold      integer not null,
    heads_counted     integer,
    status            text,
    delay_reason      text
);
create index sailing_planned on sailing (planned_departure);
create table bunkering (
    bunkering_id     bigint generated always as identity primary key,
    vessel_id        integer not null references vessel,
    bunkered_at      timestamptz not null,
    litres_ordered   numeric(9, 1) not null,
    litres_delivered numeric(9, 1) not null,
    miles_since      numeric(9, 1) not null
);
create table safety_item (
    item_id         bigint generated always as identity primary key,
    serial          text not null unique,
    kind            text not null,
    terminal_id     integer references terminal,
    vessel_id       integer references vessel,
    last_inspection date not null,
    next_inspection date
);
create table crew_certificate (
    certificate_id bigint generated always as identity primary key,
    crew_member    text not null,
    role           text not null,
    number         text,
    expires_on     date not null
);
create table gate_upload (
    upload_id    bigint generated always as identity primary key,
    terminal_id  integer not null references terminal,
    gate         text not null,
    started_at   timestamptz not null,
    ended_at     timestamptz,
    rows_taken   integer,
    rows_refused integer,
    state        text not null,
    message      text
);
create table refund (
    refund_id bigint generated always as identity primary key,
    day       date not null,
    route_id  integer not null references route,
    amount    numeric(10, 2) not null
);
-- Up to which day the data goes, and the first day of it.
create table data_days (first_day date not null, last_day date not null);
