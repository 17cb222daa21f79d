package dev.oddsentry.service.queries;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.QueryDefinition;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SqlScannerTest {

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "select 'a;b' x | select       x",
                "select 'it''s' x | select         x",
                "select E'a\\'b' x | select         x",
                "select \"a;\"\"b\" x | select         x",
                "a /* b /* c */ d */ e | a                   e",
                "a -- b | a",
                "a $$;$$ b | a       b",
                "a $x$ $$ $x$ b | a            b",
                "a$b$ ; c | a$b$ ; c",
                "$1 ; $2 | $1 ; $2",
                "a 'open | a",
            })
    void literalsAndCommentsAreBlanked(String sql, String bare) {
        assertThat(SqlScanner.blanked(sql)).hasSameSizeAs(sql);
        assertThat(SqlScanner.blanked(sql).strip()).isEqualTo(bare.strip());
    }

    @Test
    void carriageReturnEndsLineComment() {
        assertThat(SqlScanner.blanked("a -- x\r; b")).isEqualTo("a     \r; b");
    }

    @Test
    void literalOfAMillionCharactersNeedsNoStack() {
        String literal = "'" + "a''".repeat(300_000) + "'";
        assertThat(SqlText.problem("select " + literal)).isEmpty();
        assertThat(SqlText.problem("select 1 /* " + "/*".repeat(100_000) + "*/".repeat(100_000) + " */"))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "select :day                         | select ?",
                "select ':day', :day::date           | select ':day', ?::date",
                "select /* :a /* :b */ :c */ :day    | select /* :a /* :b */ :c */ ?",
                "select $$:a$$, :day                 | select $$:a$$, ?",
                "select a[1:2] where b ? 'k' = :day  | select a[1:2] where b ?? 'k' = ?",
                "select 1 where a in (:days)         | select 1 where a in (?, ?, ?)",
                "select :day ; -- done ;             | select ?",
            })
    void parametersOutsideLiteralsAreBound(String sql, String bound) {
        var query = new QueryDefinition(null, "q", "Q", null, List.of(), "ferry", sql, Map.of(), Map.of(), List.of());
        assertThat(BoundSql.of(query, Map.of("day", BigDecimal.ONE, "days", List.of(1, 2, 3)))
                        .sql())
                .isEqualTo(bound);
    }

    @ParameterizedTest
    @CsvSource({
        "select nextval('s'), nextval",
        "select x, dblink_connect",
        "select lo_create (1), lo_create",
        "select pg_advisory_lock(1), pg_advisory_lock",
        "select query_to_xml('commit'), query_to_xml",
        "select SET_CONFIG('role'), SET_CONFIG"
    })
    void functionThatActsIsRefusedByName(String sql, String name) {
        String text = sql.equals("select x") ? "select dblink_connect\n('x')" : sql;
        assertThat(SqlText.problem(text))
                .get()
                .satisfies(problem -> assertThat(problem.message()).contains(name));
    }

    @Test
    void columnOfThatNameIsNoCall() {
        assertThat(SqlText.problem("select nextval, 'nextval(1)' from log -- nextval("))
                .isEmpty();
    }
}
