package dev.oddsentry.service.queries;

import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.regex.Pattern;

/**
 * A look at a query's text before any database sees it: is it one statement that reads? The read-only transaction and the source's
 * role hold it to that as well; this gives the clearer answer and keeps a second statement from ending the transaction.
 */
final class SqlText {
    private static final Pattern SKIPPED = Pattern.compile(
            "'(?:[^']|'')*'|\"(?:[^\"]|\"\")*\"|--[^\\n]*|/\\*.*?\\*/|(\\$[A-Za-z_]*\\$).*?\\1", Pattern.DOTALL);

    /** What the databases that we know read their clock with; a call that needs parentheses has them. */
    private static final Pattern CLOCK = Pattern.compile(
            "\\b(current_date|current_time|current_timestamp|localtime|localtimestamp"
                    + "|(?:now|sysdate|curdate|curtime|getdate|sysdatetime|clock_timestamp|statement_timestamp"
                    + "|transaction_timestamp|timeofday|utc_date|utc_timestamp|unix_timestamp)\\s*\\()",
            Pattern.CASE_INSENSITIVE);

    private SqlText() {}

    static Optional<Problem> problem(String sql) {
        String bare = blanked(sql);
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
        if (!moreFollows) return Optional.empty();
        return Optional.of(Problem.error(
                "a query is one statement: a second one starts after this ;", "sql", Place.in(sql, semicolon, 1)));
    }

    /** Where the text reads the clock itself, so that a late or repeated check asks another question than its slot's. */
    static List<Problem> readsClock(String sql) {
        return CLOCK.matcher(blanked(sql))
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

    /** The same text with every character of literals, quoted names and comments as a blank. */
    private static String blanked(String sql) {
        return SKIPPED.matcher(sql).replaceAll(found -> " ".repeat(found.group().length()));
    }

    /** Without a closing semicolon, which some drivers refuse. */
    static String statement(String sql) {
        return sql.strip().replaceAll("(;\\s*)+$", "");
    }
}
