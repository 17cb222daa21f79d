-- The numbers of a back-test that is stored have the names that the API gives them.
update long_work
set result = jsonb_set(result, '{variants}', coalesce((
    select jsonb_agg(
        (variant - '{news,mails,mostExceptions,notJudged,slots}'::text[]) || jsonb_build_object(
            'updates', variant -> 'news',
            'messages', variant -> 'mails',
            'highestExceptions', variant -> 'mostExceptions',
            'unevaluated', variant -> 'notJudged',
            'slots', coalesce((
                select jsonb_agg((slot - '{news,notJudged}'::text[])
                    || jsonb_build_object('updates', slot -> 'news', 'unevaluated', slot -> 'notJudged') order by place)
                from jsonb_array_elements(variant -> 'slots') with ordinality as slots (slot, place)), '[]'))
        order by place)
    from jsonb_array_elements(result -> 'variants') with ordinality as variants (variant, place)), '[]'))
where jsonb_typeof(result -> 'variants') = 'array';
