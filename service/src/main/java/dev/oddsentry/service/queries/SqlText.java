package dev.oddsentry.service.queries;

import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
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

    /** The same text with every character of literals, quoted names and comments as a blank. */
    private static String blanked(String sql) {
        return SKIPPED.matcher(sql).replaceAll(found -> " ".repeat(found.group().length()));
    }

    /** Without a closing semicolon, which some drivers refuse. */
    static String statement(String sql) {
        return sql.strip().replaceAll("(;\\s*)+$", "");
    }
}
