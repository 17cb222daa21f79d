-- What each part of the condition left in a personal copy, as it stands with a check. Written with the row.
alter table check_copy add column parts jsonb;
