package dev.oddsentry.service.queries;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.sources.Sources;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/**
 * Texts that try to leave their read-only transaction, made of everything on which two readers of SQL may disagree. They go past the checks of a save, to a role
 * that may write, over a single connection: none may change anything, and the next query finds the connection as if it were new.
 */
class StatementFuzzTest {
    private static final int TEXTS = Integer.getInteger("odd.sql-texts", 20_000);
    private static final long SEED = Long.getLong("odd.seed", 20_261_128);

    private static final List<String> EDGES = List.of(
            "'",
            "''",
            "\"",
            "E'",
            "e'\\'",
            "\\'",
            "\\\\'",
            "U&'",
            "u&\"d\\0061\"",
            "$$",
            "$b$",
            "a$b$",
            "$1$",
            "$é$",
            "--",
            "-- x\r",
            "--\n",
            "/*",
            "*/",
            "/* /* */",
            "*/ */",
            "\r",
            "\n",
            "\r\n",
            "\u0085",
            "\u2028",
            "\u00a0",
            "\t",
            "\f",
            ";",
            " ; ",
            ";;",
            "?",
            "??",
            ":x",
            "::text",
            "{fn ",
            "}",
            "{d '",
            "\\",
            "\\;",
            "(",
            ")",
            "x'",
            "B'1",
            "N'",
            "é",
            "𝒜",
            "\ufeff",
            "'||'",
            ",");

    private static final List<String> ACTS = List.of(
            "commit",
            "rollback",
            "begin",
            "end",
            "abort",
            "start transaction read write",
            "set transaction read write",
            "set default_transaction_read_only = off",
            "set session characteristics as transaction read write",
            "reset all",
            "set role fuzz_other",
            "set session authorization fuzz_other",
            "create temp table fuzz_target as select 9 as n",
            "insert into fuzz_target values (2)",
            "delete from fuzz_target",
            "truncate fuzz_target",
            "drop table fuzz_target",
            "create table fuzz_more (n int)",
            "select nextval('fuzz_sequence')",
            "select setval('fuzz_sequence', 100)",
            "select set_config('search_path', 'pg_temp', false)",
            "select set_config('default_transaction_read_only', 'off', false)",
            "select pg_advisory_lock(7)",
            "select pg_try_advisory_lock_shared(8)",
            "select lo_from_bytea(0, 'x')",
            "select pg_notify('fuzz', 'x')",
            "listen fuzz",
            "notify fuzz",
            "prepare p as delete from fuzz_target",
            "execute p",
            "declare c cursor with hold for select 1",
            "do $x$ begin delete from fuzz_target; commit; end $x$",
            "select * into fuzz_more from fuzz_target",
            "with gone as (delete from fuzz_target returning n) select * from gone",
            "copy fuzz_target to '/tmp/fuzz'",
            "lock table fuzz_target",
            "select fuzz_writes()",
            "call fuzz_commits()",
            "explain analyze delete from fuzz_target",
            "discard plans",
            "show all");

    private static final List<String> STARTS = List.of(
            "select 1 as a ",
            "select n from fuzz_target ",
            "values (1) ",
            "table fuzz_target ",
            "with x as (select 1) select * from x ",
            "",
            "(select 1) ",
            "select '");

    private static final String NEXT_USER = """
            select row(current_user::text, session_user::text, current_setting('search_path'), current_setting('default_transaction_read_only'),
              current_setting('transaction_read_only'), current_setting('standard_conforming_strings'),
              (select count(*) from pg_locks where locktype = 'advisory'), (select count(*) from pg_cursors where is_holdable),
               (select count(*) from pg_prepared_statements where name = 'p'),
              (select count(*) from pg_class where relpersistence = 't'), (select count(*) from pg_largeobject_metadata), (select sum(n) from fuzz_target),
              to_regclass('fuzz_more')::text, (select last_value from fuzz_sequence))::text as found""";

    private final RunningService service = RunningService.get();
    private final QueryRunner runner = service.bean(QueryRunner.class);
    private final Random random = new Random(SEED);

    @BeforeAll
    static void aRoleThatMayWrite() {
        var service = RunningService.get();
        service.execute("postgres", "create database fuzz");
        service.execute("postgres", "create role fuzz_writer login password 'writer'");
        service.execute("postgres", "create role fuzz_other");
        service.execute("postgres", "grant fuzz_other to fuzz_writer");
        service.execute(
                "fuzz",
                "create table fuzz_target (n int); insert into fuzz_target values (1); create sequence fuzz_sequence;"
                        + " grant all on schema public to fuzz_writer; grant all on fuzz_target to fuzz_writer; grant all on fuzz_sequence to fuzz_writer;"
                        + " alter role fuzz_writer set default_transaction_read_only = off;"
                        + " create function fuzz_writes() returns int language sql volatile as 'delete from fuzz_target returning n';"
                        + " create procedure fuzz_commits() language plpgsql as 'begin commit; delete from fuzz_target; end'");
        service.api()
                .put(
                        "/api/sources/fuzz",
                        Map.of(
                                "jdbcUrl",
                                service.postgres().jdbcUrl("fuzz"),
                                "username",
                                "fuzz_writer",
                                "password",
                                "writer",
                                "maxConnections",
                                2));
    }

    @Test
    void noTextChangesAnythingOrReachesTheNextQuery() {
        var untouched = run(NEXT_USER);
        int ran = 0;
        for (int i = 0; i < TEXTS; i++) {
            String text = text();
            boolean reached = reaches(text);
            if (reached) ran++;
            // What was refused has done nothing; to look after each of them would take most of the time.
            if (reached || i % 10 == 0)
                assertThat(run(NEXT_USER))
                        .as("after text %d of seed %d: <%s>", i, SEED, text)
                        .isEqualTo(untouched);
        }
        assertThat(run(NEXT_USER)).isEqualTo(untouched);
        assertThat(ran).as("texts that the server ran").isGreaterThan(TEXTS / 50);
    }

    /** Whether the server ran it to its end. */
    private boolean reaches(String text) {
        try {
            run(text);
            return true;
        } catch (QueryFailureException refused) {
            return false;
        }
    }

    private String text() {
        var text = new StringBuilder(pick(STARTS));
        int parts = 1 + random.nextInt(7);
        for (int i = 0; i < parts; i++)
            text.append(random.nextInt(3) == 0 ? ";" + pick(ACTS) + ";" : pick(EDGES))
                    .append(random.nextBoolean() ? " " : "");
        if (random.nextInt(6) == 0) text.insert(0, pick(EDGES));
        return text.toString().isBlank() ? "select 1" : text.toString();
    }

    private String pick(List<String> from) {
        return from.get(random.nextInt(from.size()));
    }

    private List<Object> run(String sql) {
        var source = service.bean(Sources.class).require("fuzz");
        var query =
                new QueryDefinition(null, "fuzz", "Fuzz", null, List.of(), "fuzz", sql, Map.of(), Map.of(), List.of());
        var first = new ArrayList<Object>();
        var input = new QueryInput(Map.of("x", "x", "xtable", "x", "xselect", "x"), ZoneOffset.UTC);
        runner.readAll(source, query, input, _ -> row -> {
            if (first.isEmpty()) first.addAll(Arrays.asList(row));
        });
        return first;
    }
}
