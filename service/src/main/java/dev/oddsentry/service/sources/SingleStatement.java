package dev.oddsentry.service.sources;

import java.sql.SQLException;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Pattern;
import org.postgresql.core.Parser;

/** What the driver makes of a text before it sends it. */
final class SingleStatement {
    private static final boolean STANDARD_STRINGS = true;

    /** Anything that could be a call: a name or a quoted name before a parenthesis, in literals too. */
    private static final Pattern CALL = Pattern.compile("([\\p{L}_][\\p{L}\\p{N}_$]*|\")\\s*\\(");

    /** A name that is written by code points, or a comment that stands between a name and its parenthesis. */
    private static final Pattern HIDDEN_CALL = Pattern.compile("(?i)u&\\s*\"|\\*/\\s*\\(|--[^\\r\\n]*[\\r\\n]\\s*\\(");

    /** Calls that leave nothing behind in a session. A name that is missing here costs a new connection, nothing else. */
    private static final Set<String> PURE = Set.of("""
            and or not in as on by from where when then else select values any all some exists over filter using with
            materialized union except intersect having case between like ilike is join lateral distinct array row rollup
            cube sets group partition interval limit

            numeric decimal varchar char character varying timestamp timestamptz time timetz bit float

            count sum avg min max stddev variance string_agg array_agg bool_and bool_or every percentile_cont
            percentile_disc mode coalesce nullif greatest least cast extract date_part date_trunc date_bin age now
            make_date make_time make_timestamp make_interval to_char to_date to_timestamp to_number abs round trunc ceil
            ceiling floor mod div power sqrt sign upper lower initcap trim btrim ltrim rtrim length char_length
            octet_length substring substr left right lpad rpad replace translate position strpos split_part concat
            concat_ws repeat reverse md5 format row_number rank dense_rank lag lead first_value last_value nth_value ntile
            generate_series unnest array_length cardinality jsonb_build_object json_build_object jsonb_agg current_setting
            to_regclass regexp_replace regexp_match regexp_matches regexp_split_to_table
            string_to_array array_to_string jsonb_array_elements json_array_elements jsonb_each jsonb_object_keys
            stddev_pop stddev_samp var_pop var_samp corr cume_dist percent_rank bit_and bit_or date random json_agg to_json to_jsonb """.strip().split("\\s+"));

    private SingleStatement() {}

    /** Whether the driver sends the text as one statement. */
    static boolean isOne(String sql) throws SQLException {
        String sent = Parser.replaceProcessing(sql, true, STANDARD_STRINGS);
        return Parser.parseJdbcSql(sent, STANDARD_STRINGS, true, true, false, true)
                        .size()
                == 1;
    }

    /**
     * Whether nothing that the text calls can outlive {@code discard all}, such as a connection to another server. Names may be written in ways
     * that this does not read; those count as unknown.
     */
    static boolean leavesNothingBehind(String sql) {
        if (HIDDEN_CALL.matcher(sql).find()) return false;
        var calls = CALL.matcher(sql);
        while (calls.find()) {
            if (!PURE.contains(calls.group(1).toLowerCase(Locale.ROOT))) return false;
        }
        return true;
    }
}
