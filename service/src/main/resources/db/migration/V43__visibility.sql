-- The teams that see a definition, its owner among them; null where everybody does. Written with each revision.
alter table definition
    add column visible_to text[],
    add column private_to text;
update definition
set private_to = (select revision.document ->> 'private_to'
                  from definition_revision revision
                  where revision.definition_id = definition.id and revision.revision = definition.revision)
where kind = 'LAYOUT';
create index definition_not_seen_by_all on definition (kind) where visible_to is not null or private_to is not null;

-- The teams whose members may use a source; null for all.
alter table source add column teams text[];
