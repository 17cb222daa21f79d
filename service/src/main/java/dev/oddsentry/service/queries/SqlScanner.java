package dev.oddsentry.service.queries;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Finds the parts of an SQL text that are literals, quoted names and comments, by PostgreSQL's lexical rules: nested comments, {@code E''} with backslashes,
 * dollar quotes, and names that contain dollar signs. It serves messages and parameters. Nothing relies on it for safety: what is one
 * statement is for the driver and the server to say.
 */
final class SqlScanner {
    private final String sql;
    private int at;

    private SqlScanner(String sql) {
        this.sql = sql;
    }

    /** The same text, of the same length, with a blank for every character that is in a literal, a quoted name or a comment. */
    static String blanked(String sql) {
        char[] bare = sql.toCharArray();
        for (var part : new SqlScanner(sql).covered()) Arrays.fill(bare, part.from, part.to, ' ');
        return new String(bare);
    }

    private record Part(int from, int to) {}

    private List<Part> covered() {
        var parts = new ArrayList<Part>();
        while (at < sql.length()) {
            int from = at;
            if (skipCovered()) parts.add(new Part(from, at));
        }
        return parts;
    }

    /** Moves on by one part or one character. @return {@code true} if it was a part */
    private boolean skipCovered() {
        char c = sql.charAt(at);
        if (c == '-' && follows("--")) return skipLine();
        if (c == '/' && follows("/*")) return skipComment();
        if (c == '\'') return skipQuoted('\'', false);
        if (c == '"') return skipQuoted('"', false);
        if (c == '$') return skipDollarQuoted();
        if (isNameStart(c)) return skipName();
        if (Character.isDigit(c)) skipNamePart();
        else at++;
        return false;
    }

    private boolean follows(String text) {
        return sql.startsWith(text, at);
    }

    private boolean skipLine() {
        while (at < sql.length() && sql.charAt(at) != '\n' && sql.charAt(at) != '\r') at++;
        return true;
    }

    private boolean skipComment() {
        int depth = 0;
        do {
            if (follows("/*")) {
                depth++;
                at += 2;
            } else if (follows("*/")) {
                depth--;
                at += 2;
            } else at++;
        } while (depth > 0 && at < sql.length());
        at = Math.min(at, sql.length());
        return true;
    }

    /** From one quote to the other; a doubled one stands for itself, and ends and begins a literal, which comes to the same. */
    private boolean skipQuoted(char quote, boolean backslashes) {
        at++;
        while (at < sql.length() && sql.charAt(at) != quote) at += backslashes && sql.charAt(at) == '\\' ? 2 : 1;
        at = Math.min(at + 1, sql.length());
        if (backslashes && at < sql.length() && sql.charAt(at) == quote) return skipQuoted(quote, true);
        return true;
    }

    private boolean skipDollarQuoted() {
        int end = at + 1;
        while (end < sql.length() && isNamePart(sql.charAt(end)) && sql.charAt(end) != '$') end++;
        boolean opens = end < sql.length() && sql.charAt(end) == '$' && !Character.isDigit(sql.charAt(at + 1));
        if (!opens) {
            at++;
            return false;
        }
        String tag = sql.substring(at, end + 1);
        int close = sql.indexOf(tag, end + 1);
        at = close < 0 ? sql.length() : close + tag.length();
        return true;
    }

    private boolean skipName() {
        if ((sql.charAt(at) == 'e' || sql.charAt(at) == 'E') && at + 1 < sql.length() && sql.charAt(at + 1) == '\'') {
            at++;
            return skipQuoted('\'', true);
        }
        skipNamePart();
        return false;
    }

    private void skipNamePart() {
        while (at < sql.length() && isNamePart(sql.charAt(at))) at++;
    }

    static boolean isNameStart(char c) {
        return Character.isLetter(c) || c == '_' || c > 0x7f;
    }

    static boolean isNamePart(char c) {
        return isNameStart(c) || Character.isDigit(c) || c == '$';
    }
}
