-- How the messages of a team end: a text, and a picture.
alter table team
    add column signature text not null default '',
    add column logo bytea,
    add column logo_media_type text,
    add constraint team_logo_has_type check ((logo is null) = (logo_media_type is null));
