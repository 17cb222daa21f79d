package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.QueryDefinition;
import java.math.BigDecimal;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Types;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** A query's text with {@code :names} turned into bind variables; values are always bound, never written into the text. */
record BoundSql(String sql, List<@Nullable Object> values) {
    /** A parameter, a cast, or a question mark, which JDBC would take for a bind variable of its own. */
    private static final Pattern MARK = Pattern.compile("::|:([A-Za-z_][A-Za-z0-9_]*)|\\?");

    private interface Binding {
        /** How many bind variables stand for the parameter. */
        int variables(String name);
    }

    static BoundSql of(QueryDefinition query, Map<String, Object> values) {
        var ordered = new ArrayList<@Nullable Object>();
        String sql = substitute(query, name -> {
            Object value = values.get(name);
            if (value == null) throw new QueryFailureException("The parameter " + name + " has no value.");
            // A list has as many bind variables as it has values.
            var several = value instanceof List<?> list ? list : List.of(value);
            ordered.addAll(several);
            return several.size();
        });
        return new BoundSql(sql, ordered);
    }

    /** With a bind variable for each name and nothing bound, to be described only. */
    static String withoutValues(QueryDefinition query) {
        return substitute(query, _ -> 1);
    }

    /** The parameter names that the text uses, in order. */
    static Set<String> namesIn(QueryDefinition query) {
        var names = new LinkedHashSet<String>();
        substitute(query, name -> {
            names.add(name);
            return 1;
        });
        return names;
    }

    private static String substitute(QueryDefinition query, Binding binding) {
        String statement = SqlText.statement(query.sql());
        var marks = MARK.matcher(SqlScanner.blanked(statement));
        var sql = new StringBuilder();
        int copied = 0;
        while (marks.find()) {
            sql.append(statement, copied, marks.start());
            copied = marks.end();
            String name = marks.group(1);
            if (name != null) sql.append(String.join(", ", Collections.nCopies(binding.variables(name), "?")));
            else sql.append(marks.group().equals("?") ? "??" : marks.group());
        }
        return sql.append(statement, copied, statement.length()).toString();
    }

    void bind(PreparedStatement statement) throws SQLException {
        for (int i = 0; i < values.size(); i++) bind(statement, i + 1, values.get(i));
    }

    private static void bind(PreparedStatement statement, int index, @Nullable Object value) throws SQLException {
        switch (value) {
            case null -> statement.setNull(index, Types.NULL);
            case String text -> statement.setString(index, text);
            case BigDecimal number -> statement.setBigDecimal(index, number);
            case Boolean truth -> statement.setBoolean(index, truth);
            case LocalDate date -> statement.setObject(index, date);
            case LocalDateTime local -> statement.setObject(index, local);
            case Instant instant -> statement.setObject(index, instant.atOffset(ZoneOffset.UTC));
            default -> throw new IllegalStateException("no parameter value: " + value.getClass());
        }
    }
}
