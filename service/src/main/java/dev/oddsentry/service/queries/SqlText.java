package dev.oddsentry.service.queries;

import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A look at a query's text before any database sees it: is it one statement that reads? This gives the clearer answer. What holds a query to it are
 * the driver's reading of the text, the server, the read-only transaction and the source's role.
 */
final class SqlText {
    /**
     * Functions that act instead of reading, or run text that they are given. Their effect would end with the query in any case; refusing them
     * says so at the save.
     */
    private static final Pattern ACTS = Pattern.compile(
            "\\b((?:dblink|lo|pg_advisory|pg_try_advisory|pg_logical|pg_replication|pg_create|pg_drop|pg_copy|pg_ls|pg_backup|pg_wal_replay|pg_stat_reset)_\\w+"
                    + "|dblink|loread|lowrite|nextval|setval|set_config|pg_notify|pg_terminate_backend|pg_cancel_backend|pg_reload_conf|pg_rotate_logfile"
                    + "|pg_read_file|pg_read_binary_file|pg_stat_file|pg_switch_wal|pg_promote|pg_export_snapshot|pg_start_backup|pg_stop_backup"
                    + "|query_to_xml\\w*|cursor_to_xml\\w*|table_to_xml\\w*|schema_to_xml\\w*|database_to_xml\\w*|ts_stat|ts_rewrite)\\s*\\(",
            Pattern.CASE_INSENSITIVE);

    /** What the databases that we know read their clock with; a call that needs parentheses has them. */
    private static final Pattern CLOCK = Pattern.compile(
            "\\b(current_date|current_time|current_timestamp|localtime|localtimestamp"
                    + "|(?:now|sysdate|curdate|curtime|getdate|sysdatetime|clock_timestamp|statement_timestamp"
                    + "|transaction_timestamp|timeofday|utc_date|utc_timestamp|unix_timestamp)\\s*\\()",
            Pattern.CASE_INSENSITIVE);

    private SqlText() {}

    static Optional<Problem> problem(String sql) {
        String bare = SqlScanner.blanked(sql);
        String firstWord = bare.strip().split("\\W", 2)[0].toLowerCase(Locale.ROOT);
        if (!firstWord.matches("select|with|values|table")) {
            int offset = Math.max(0, bare.indexOf(bare.strip()));
            String seen = firstWord.isEmpty() ? "this" : "\"" + firstWord + "\"";
            return Optional.of(Problem.error(
                    "a query reads: expected select or with, saw " + seen,
                    "sql",
                    Place.in(sql, offset, firstWord.length())));
        }
        int semicolon = bare.indexOf(';');
        boolean moreFollows =
                semicolon >= 0 && !bare.substring(semicolon).replace(';', ' ').isBlank();
        if (moreFollows)
            return Optional.of(Problem.error(
                    "a query is one statement: a second one starts after this ;", "sql", Place.in(sql, semicolon, 1)));
        var act = ACTS.matcher(bare);
        if (!act.find()) return Optional.empty();
        return Optional.of(Problem.error(
                "a query reads: the function " + act.group(1) + " acts on the server and cannot be used",
                "sql",
                Place.in(sql, act.start(1), act.group(1).length())));
    }

    /** Where the text reads the clock itself, so that a late or repeated check asks another question than its slot's. */
    static List<Problem> readsClock(String sql) {
        return CLOCK.matcher(SqlScanner.blanked(sql))
                .results()
                .map(found -> {
                    int length = found.group().endsWith("(")
                            ? found.group().length() - 1
                            : found.group().length();
                    return new Problem(
                            Problem.Weight.WARNING,
                            "the text reads the clock itself, so a late check or a back-test asks another question than its"
                                    + " slot's; use a parameter with a relative date, such as today - 7 days",
                            "sql",
                            Place.in(sql, found.start(), length),
                            null);
                })
                .toList();
    }

    /** Without closing semicolons, which some drivers refuse. A comment after them stays out too. */
    static String statement(String sql) {
        String bare = SqlScanner.blanked(sql);
        int semicolon = bare.indexOf(';');
        boolean closing =
                semicolon >= 0 && bare.substring(semicolon).replace(';', ' ').isBlank();
        return (closing ? sql.substring(0, semicolon) : sql).strip();
    }
}
