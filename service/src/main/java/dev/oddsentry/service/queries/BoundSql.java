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
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.SqlParameterValue;
import org.springframework.jdbc.core.namedparam.MapSqlParameterSource;
import org.springframework.jdbc.core.namedparam.NamedParameterUtils;
import org.springframework.jdbc.core.namedparam.ParsedSql;
import org.springframework.jdbc.core.namedparam.SqlParameterSource;

/** A query's text with {@code :names} turned into bind variables; values are always bound, never written into the text. */
record BoundSql(String sql, List<@Nullable Object> values) {

    static BoundSql of(QueryDefinition query, Map<String, Object> values) {
        ParsedSql parsed = parse(query);
        var source = new MapSqlParameterSource(values);
        var ordered = new ArrayList<@Nullable Object>();
        for (Object value : NamedParameterUtils.buildValueArray(parsed, source, null)) {
            Object plain = value instanceof SqlParameterValue typed ? typed.getValue() : value;
            // A list has as many placeholders as it has values.
            if (plain instanceof List<?> several) ordered.addAll(several);
            else ordered.add(plain);
        }
        return new BoundSql(NamedParameterUtils.substituteNamedParameters(parsed, source), ordered);
    }

    /** With a bind variable for each name and nothing bound, to be described only. */
    static String withoutValues(QueryDefinition query) {
        return NamedParameterUtils.substituteNamedParameters(parse(query), new NameCollector());
    }

    /** The parameter names that the text uses, in order. */
    static Set<String> namesIn(QueryDefinition query) {
        var collector = new NameCollector();
        NamedParameterUtils.substituteNamedParameters(parse(query), collector);
        return collector.names;
    }

    private static ParsedSql parse(QueryDefinition query) {
        return NamedParameterUtils.parseSqlStatement(SqlText.statement(query.sql()));
    }

    /** The library tells parameter names only by asking for their values. */
    private static final class NameCollector implements SqlParameterSource {
        private final Set<String> names = new LinkedHashSet<>();

        @Override
        public boolean hasValue(String name) {
            names.add(name);
            return false;
        }

        @Override
        public @Nullable Object getValue(String name) {
            return null;
        }
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
