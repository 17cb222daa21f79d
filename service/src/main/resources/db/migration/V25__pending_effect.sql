-- What people did between two checks has two axes: what edits did to memory, and what a person wants reported. One column could not hold
-- every pair, so that an edit was forgotten when a person then chose what to report.
alter table rule
    add column pending_edit text not null default 'NONE'
        check (pending_edit in ('NONE', 'OTHER_COLUMNS', 'OTHER_CONDITIONS', 'OTHER_KEY')),
    add column pending_report text not null default 'NONE'
        check (pending_report in ('NONE', 'UPDATES', 'OPEN', 'TREAT_AS_KNOWN'));
alter table rule_copy
    add column pending_edit text not null default 'NONE'
        check (pending_edit in ('NONE', 'OTHER_COLUMNS', 'OTHER_CONDITIONS', 'OTHER_KEY')),
    add column pending_report text not null default 'NONE'
        check (pending_report in ('NONE', 'UPDATES', 'OPEN', 'TREAT_AS_KNOWN'));

-- What was taken as known may have come from an edit of conditions too, which was not kept; findings that it ended cleared silently.
update rule
   set pending_edit = case on_next_check
         when 'RE_BASE' then 'OTHER_COLUMNS'
         when 'RE_JUDGE' then 'OTHER_CONDITIONS'
         when 'RE_JUDGE_TELL_OPEN' then 'OTHER_CONDITIONS'
         when 'TAKE_AS_KNOWN' then 'OTHER_CONDITIONS'
         when 'START_ANEW' then 'OTHER_KEY'
         when 'START_ANEW_AS_KNOWN' then 'OTHER_KEY'
         else 'NONE' end,
       pending_report = case on_next_check
         when 'TELL_OPEN' then 'OPEN'
         when 'RE_JUDGE_TELL_OPEN' then 'OPEN'
         when 'TAKE_AS_KNOWN' then 'TREAT_AS_KNOWN'
         when 'START_ANEW_AS_KNOWN' then 'TREAT_AS_KNOWN'
         else 'NONE' end
 where on_next_check <> 'ORDINARY';
update rule_copy
   set pending_edit = case on_next_check
         when 'RE_BASE' then 'OTHER_COLUMNS'
         when 'RE_JUDGE' then 'OTHER_CONDITIONS'
         when 'RE_JUDGE_TELL_OPEN' then 'OTHER_CONDITIONS'
         when 'TAKE_AS_KNOWN' then 'OTHER_CONDITIONS'
         when 'START_ANEW' then 'OTHER_KEY'
         when 'START_ANEW_AS_KNOWN' then 'OTHER_KEY'
         else 'NONE' end,
       pending_report = case on_next_check
         when 'TELL_OPEN' then 'OPEN'
         when 'RE_JUDGE_TELL_OPEN' then 'OPEN'
         when 'TAKE_AS_KNOWN' then 'TREAT_AS_KNOWN'
         when 'START_ANEW_AS_KNOWN' then 'TREAT_AS_KNOWN'
         else 'NONE' end
 where on_next_check <> 'ORDINARY';
alter table rule drop column on_next_check;
alter table rule_copy drop column on_next_check;
