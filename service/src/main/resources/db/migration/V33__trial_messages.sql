-- What a person sends to themselves of a rule that may not be saved yet.
alter table message
    add column trial_of uuid references person,
    drop constraint message_of,
    add constraint message_of check (
        num_nonnulls(incident_id, round_up_id, check_id, preview_of, escalation_of, trial_of) = 1
        and (check_id is null) = (rule_id is null) and (check_id is null) = (audience_id is null));
