package dev.oddsentry.service.queries;

import dev.oddsentry.core.definition.ParameterType;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.service.failures.FailureKind;
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
import org.postgresql.util.PGobject;

/** A query's text with {@code :names} turned into bind variables; values are always bound, never written into the text. */
record BoundSql(String sql, List<Variable> variables) {
    /** A parameter, a cast, or a question mark, which JDBC would take for a bind variable of its own. */
    private static final Pattern MARK = Pattern.compile("::|:([A-Za-z_][A-Za-z0-9_]*)|\\?");

    /** @param value null for none, of the declared type all the same */
    record Variable(ParameterType type, @Nullable Object value) {}

    private interface Binding {
        /** How many bind variables stand for the parameter. */
        int variables(String name);
    }

    static BoundSql of(QueryDefinition query, Map<String, ? extends @Nullable Object> values) {
        var ordered = new ArrayList<Variable>();
        String sql = substitute(query, name -> {
            Object value = values.get(name);
            var declared = query.parameters().get(name);
            if (value == null && (declared == null || !declared.optional()))
                throw new QueryFailureException(FailureKind.QUERY_INVALID, "The parameter " + name + " has no value.");
            // A list has as many bind variables as it has values; of none, the null that is equal to nothing.
            var several = value instanceof List<?> list ? list : Collections.singletonList(value);
            var type = declared == null ? ParameterType.TEXT : declared.type();
            several.forEach(each -> ordered.add(new Variable(type, each)));
            return several.size();
        });
        return new BoundSql(sql, ordered);
    }

    /** With a bind variable of the declared type for each name and no value, to be described only. */
    static BoundSql withoutValues(QueryDefinition query) {
        var ordered = new ArrayList<Variable>();
        String sql = substitute(query, name -> {
            var declared = query.parameters().get(name);
            ordered.add(new Variable(declared == null ? ParameterType.TEXT : declared.type(), null));
            return 1;
        });
        return new BoundSql(sql, ordered);
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
        for (int i = 0; i < variables.size(); i++) {
            var variable = variables.get(i);
            if (variable.value() == null) bindNull(statement, i + 1, variable.type());
            else bind(statement, i + 1, variable.value());
        }
    }

    /** The driver leaves the type of some nulls to the server, which then guesses it from what stands beside. */
    private static void bindNull(PreparedStatement statement, int index, ParameterType type) throws SQLException {
        var none = new PGobject();
        none.setType(
                switch (type) {
                    case TEXT -> "varchar";
                    case NUMBER -> "numeric";
                    case TRUTH -> "bool";
                    case DATE -> "date";
                    case TIMESTAMP -> "timestamp";
                    case INSTANT -> "timestamptz";
                });
        statement.setObject(index, none, Types.OTHER);
    }

    private static void bind(PreparedStatement statement, int index, Object value) throws SQLException {
        switch (value) {
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
