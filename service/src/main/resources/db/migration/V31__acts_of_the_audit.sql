-- Acts in the audit were English words. They are names now; the words of acts that no longer exist stay in the detail.
alter table audit_event add column known text;
update audit_event set known = case act
    when 'log in' then 'LOG_IN'
    when 'log in for a token' then 'GET_TOKEN'
    when 'log in refused' then 'LOG_IN_REFUSED'
    when 'send open findings' then 'SEND_OPEN_FINDINGS'
    when 'preview rule' then 'PREVIEW_RULE'
    when 'preview draft' then 'PREVIEW_DRAFT'
    when 'preview query' then 'PREVIEW_QUERY'
    when 'explain finding' then 'EXPLAIN_FINDING'
    when 'count exceptions' then 'COUNT_EXCEPTIONS'
    when 'preview mail of draft' then 'PREVIEW_MESSAGE_OF_DRAFT'
    when 'preview mail' then 'PREVIEW_MESSAGE'
    when 'preview extract' then 'PREVIEW_EXTRACT'
    when 'try condition' then 'TRY_CONDITION'
    when 'back-test rule' then 'BACK_TEST'
    when 'fill in history' then 'BACKFILL'
    when 'stop long work' then 'STOP_WORK'
    when 'give feed' then 'CREATE_FEED'
    when 'stop feed' then 'DELETE_FEED'
    when 'preview round-up' then 'PREVIEW_ROUND_UP'
    when 'send round-up' then 'SEND_ROUND_UP'
    when 'report event' then 'SEND_EVENT'
    when 'pause round-up' then 'PAUSE_ROUND_UP'
    when 'resume round-up' then 'RESUME_ROUND_UP'
    when 'set threshold' then 'SET_THRESHOLD'
    when 'save draft' then 'SAVE_DRAFT'
    when 'discard draft' then 'DISCARD_DRAFT'
    when 'activate rule' then 'ACTIVATE_RULE'
    when 'pause rule' then 'PAUSE_RULE'
    when 'set password of files' then 'SET_FILE_PASSWORD'
    when 'save source' then 'SAVE_SOURCE'
    when 'hold mail' then 'HOLD_MAIL'
    when 'throw held mail away' then 'DISCARD_HELD_MAIL'
    when 'release held mail' then 'RELEASE_HELD_MAIL'
    when 'stop mail' then 'CANCEL_MESSAGE'
    when 'send mail again' then 'RESEND_MESSAGE'
    when 'report again' then 'REPORT_AGAIN'
    when 'mail arrived' then 'CONFIRM_MESSAGE'
    when 'join history' then 'JOIN_MEASUREMENTS'
    when 'unblock address' then 'UNBLOCK_ADDRESS'
    when 'resubscribe a recipient' then 'RESUBSCRIBE'
    when 'set language' then 'SET_LANGUAGE'
    when 'save team' then 'SAVE_TEAM'
    when 'add person' then 'ADD_PERSON'
    when 'run query' then 'RUN_QUERY'
    when 'save query' then 'SAVE_QUERY'
    when 'save rule' then 'SAVE_RULE'
    when 'save threshold' then 'SAVE_THRESHOLD'
    when 'save calendar' then 'SAVE_CALENDAR'
    when 'save layout' then 'SAVE_LAYOUT'
    when 'save round-up' then 'SAVE_ROUND_UP'
    else case when act like 'export %' then 'EXPORT_FINDINGS' end end;
update audit_event
   set detail = case
           when known is null then concat_ws(': ', act, detail)
           when known = 'EXPORT_FINDINGS' then substr(act, length('export ') + 1)
           else detail end,
       act = coalesce(known, 'EARLIER');
alter table audit_event drop column known;
alter table audit_event add check (act in ('LOG_IN', 'LOG_IN_REFUSED', 'GET_TOKEN', 'ADD_PERSON', 'SAVE_TEAM',
    'SAVE_SOURCE', 'SAVE_QUERY', 'SAVE_RULE', 'SAVE_THRESHOLD', 'SAVE_CALENDAR', 'SAVE_LAYOUT', 'SAVE_ROUND_UP',
    'SAVE_DRAFT', 'DISCARD_DRAFT', 'SET_THRESHOLD', 'SET_FILE_PASSWORD', 'SET_LANGUAGE', 'ACTIVATE_RULE', 'PAUSE_RULE',
    'PAUSE_ROUND_UP', 'RESUME_ROUND_UP', 'SEND_ROUND_UP', 'SEND_EVENT', 'SEND_OPEN_FINDINGS', 'HOLD_MAIL',
    'RELEASE_HELD_MAIL', 'DISCARD_HELD_MAIL', 'CANCEL_MESSAGE', 'RESEND_MESSAGE', 'CONFIRM_MESSAGE', 'REPORT_AGAIN',
    'UNBLOCK_ADDRESS', 'RESUBSCRIBE', 'CREATE_FEED', 'DELETE_FEED', 'BACK_TEST', 'BACKFILL', 'STOP_WORK',
    'JOIN_MEASUREMENTS', 'EXPORT_FINDINGS', 'RUN_QUERY', 'TRY_CONDITION', 'EXPLAIN_FINDING', 'COUNT_EXCEPTIONS',
    'PREVIEW_RULE', 'PREVIEW_DRAFT', 'PREVIEW_QUERY', 'PREVIEW_MESSAGE', 'PREVIEW_MESSAGE_OF_DRAFT', 'PREVIEW_EXTRACT',
    'PREVIEW_ROUND_UP', 'EARLIER'));
