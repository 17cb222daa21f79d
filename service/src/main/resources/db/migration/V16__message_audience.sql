-- How many messages an audience had lately, and whether an earlier one still waits.
create index message_audience on message (audience_id, slot) where audience_id is not null;
