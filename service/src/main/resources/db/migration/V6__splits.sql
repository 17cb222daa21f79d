-- Splits: each value of a column has an audience of its own.

-- The present value of the split's column, as text; null where the rule is not split. Written with the row.
alter table finding add column split_value text;
create index finding_open_split on finding (rule_id, split_value) where state = 'OPEN';
