-- Tables and columns get the names that the same things have everywhere else. Nothing moves; constraints and indexes keep their names.

alter table bad_address rename to blocked_address;
alter table blocked_address rename column words to response;

alter table leaver rename to unsubscription;
alter table unsubscription rename column left_at to unsubscribed_at;
alter table unsubscription rename column returned_at to resubscribed_at;
alter table unsubscription rename column returned_by to resubscribed_by;

alter table mark rename to handling;

alter table occasion rename to rule_trigger;
alter table rule_trigger rename column given to event_values;

alter table trouble rename to incident;
alter table trouble_rule rename to incident_rule;
alter table incident_rule rename column trouble_id to incident_id;
alter table incident_rule rename column well_at to recovered_at;

alter table reader_language rename to recipient_language;

alter table reported rename to last_report;
alter table last_report rename column told_at to reported_at;
alter table report rename column before_told_at to before_reported_at;

alter table check_copy rename column not_judged to unevaluated;
alter table check_copy rename column news to updates;

alter table rule_check rename column stands_for to slots_covered;
alter table rule_check rename column asked_by to requested_by;
alter table rule_check rename column news to updates;
alter table rule_check rename column worst_news to worst_update;
alter table rule_check rename column not_judged to unevaluated;
alter table rule_check rename column not_judged_groups to unevaluated_groups;
alter table rule_check rename column asked_to_run_at to run_requested_at;
alter table rule_check rename column released_by to approved_by;
alter table rule_check rename column given to event_values;

alter table definition_revision rename column remark to reason;
alter table threshold_value rename column remark to reason;

alter table delivery_notice rename column told_at to sent_at;

alter table escalation rename column told_to to reports_seen_to;
alter table escalation rename column looked_at to handling_seen_to;

-- Since when an exception lasts, and since when an open finding is absent, as counts of checks and as slots.
alter table finding rename column held_ordinal to lasting_ordinal;
alter table finding rename column held_slot to lasting_slot;
alter table finding rename column missed_ordinal to absent_ordinal;
alter table finding rename column missed_slot to absent_slot;
alter table finding rename column standing to unreported;
alter table finding rename column heard_by to opening_audience;
alter table finding rename column heard_told to opening_reported;
alter table finding rename column heard_message to opening_message;

alter table long_work rename column ask to input;
alter table long_work rename column asked_by to requested_by;
alter table long_work rename column asked_at to requested_at;

alter table mail_hold rename column why to reason;

alter table message rename column trouble_id to incident_id;
alter table message rename column late_words to late_notice;
alter table message rename column may_leave to allow_unsubscribe;
alter table message_recipient rename column words to response;
alter table recipient_try rename column words to response;

alter table source rename column most_rows to max_rows;
alter table source rename column most_connections to max_connections;

alter table series_point rename column filled_in to backfilled;

-- Work that waits is found by the names of its tasks; what recurs makes itself anew.
update scheduled_tasks set task_name = 'trigger' where task_name = 'occasion';
delete from scheduled_tasks where task_name = 'trouble-mail';
