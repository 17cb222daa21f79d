package dev.oddsentry.service.db;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Pattern;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.core.io.ClassPathResource;

/** A database of the first version, with data in it, taken over by this one. */
class UpgradeTest {
    private static final String FIRST_VERSION = "1";

    private final RunningService service = RunningService.get();
    private final String id = UUID.randomUUID().toString().substring(0, 8);
    private final LateSailings sailings = new LateSailings(service);

    @Test
    void anInstallationOfTheFirstVersionKeepsItsRulesAndItsMemory() throws SQLException, IOException {
        sailings.late("SK-1", 20).late("SK-2", 60);
        try (var before = node("before_" + id)) {
            var api = api(before);
            service.useFerry(api);
            api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
            api.push(sailings.rule());
            api.post("/api/rules/" + sailings.name + "/activate", "");
            assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(2);
        }
        asFirstVersion("before_" + id, "upgraded_" + id);
        try (var after = node("upgraded_" + id)) {
            var api = api(after);
            assertThat(api.get("/api/rules/" + sailings.name + "/findings")
                            .path("total")
                            .asInt())
                    .isEqualTo(2);
            assertThat(api.get("/api/sources").toString())
                    .doesNotContain("password=")
                    .contains("\"maxConnections\":2");
            assertThat(service.count(
                            "upgraded_" + id, "select count(*) from audit_event where detail like '%password=reader%'"))
                    .isZero();
            var quiet = api.check(sailings.name);
            assertThat(quiet.path("state").asString()).isEqualTo("QUIET");
            assertThat(quiet.path("exceptions").asInt()).isEqualTo(2);
            assertThat(api.push(sailings.rule()).path("revision").asInt()).isEqualTo(1);
            api.push("kind: threshold\nname: late_" + id + "\n");
            api.push(sailings.exceptions("delay_min > threshold('late_" + id + "')")
                    .rule());
            api.post(
                    "/api/thresholds/late_" + id + "/values",
                    Map.of("values", List.of(Map.of("number", 30)), "reason", "moved"));
            assertThat(api.check(sailings.name).path("exceptions").asInt()).isEqualTo(1);
        }
    }

    private ConfigurableApplicationContext node(String database) throws SQLException {
        try (var connection = service.connect("postgres")) {
            run(
                    connection,
                    "select 'create database " + database
                            + "' where not exists (select from pg_database where datname = '" + database + "')");
        }
        return service.startNode(database, service.postgres().jdbcUrl(database));
    }

    private static final Pattern RENAME =
            Pattern.compile("alter table (?<table>\\w+) rename (column (?<column>\\w+) )?to (?<to>\\w+);");

    private static HttpApi api(ConfigurableApplicationContext node) {
        return HttpApi.loggedIn(RunningService.baseUrl(node), "operator", RunningService.OPERATOR_PASSWORD);
    }

    /** Runs each statement that a query answers. */
    private static void run(Connection connection, String query) throws SQLException {
        var statements = new ArrayList<String>();
        try (var rows = connection.createStatement().executeQuery(query)) {
            while (rows.next()) statements.add(rows.getString(1));
        }
        for (String statement : statements) {
            try (var each = connection.createStatement()) {
                each.execute(statement);
            }
        }
    }

    /** Makes a database as the first version would have left it, from one of this version: its tables with its columns alone. */
    private void asFirstVersion(String from, String to) throws SQLException, IOException {
        service.execute("postgres", "create database " + to);
        Flyway.configure()
                .dataSource(service.postgres().jdbcUrl(to), "odd", "")
                .target(FIRST_VERSION)
                .load()
                .migrate();
        try (var source = service.connect(from);
                var target = service.connect(to)) {
            source.setAutoCommit(false);
            undoNames(source);
            // What was reported at opening stood in rows of its own then.
            source.createStatement()
                    .execute(
                            "insert into reported (finding_id, audience_id, state, severity, fingerprint, row, at, told_at, message_id)"
                                    + " select id, heard_by, state, severity, fingerprint, row, opened_at,"
                                    + " case when heard_told then opened_at end, heard_message from finding where heard_by is not null");
            target.createStatement().execute("set session_replication_role = replica");
            for (String table : tables(target)) copy(source, target, table);
            source.rollback();
            // What is refused today may be stored.
            target.createStatement()
                    .execute("update source set jdbc_url = jdbc_url || '?password=reader', most_connections = 1");
            target.createStatement()
                    .execute("update audit_event set detail = detail || '?password=reader' where act = 'save source'");
            run(
                    target,
                    "select format('select setval(pg_get_serial_sequence(%L, %L), 1000)', table_name, column_name)"
                            + " from information_schema.columns where is_identity = 'YES' and table_schema = 'public'");
        }
    }

    /** Gives tables and columns back the names that they had before they got those of the glossary. */
    private static void undoNames(Connection source) throws SQLException, IOException {
        String migration =
                new ClassPathResource("db/migration/V30__names_of_the_glossary.sql").getContentAsString(UTF_8);
        var renames = RENAME.matcher(migration).results().toList().reversed();
        for (var rename : renames) {
            String column = rename.group("column");
            source.createStatement()
                    .execute(
                            column == null
                                    ? "alter table " + rename.group("to") + " rename to " + rename.group("table")
                                    : "alter table " + rename.group("table") + " rename column " + rename.group("to")
                                            + " to " + column);
        }
    }

    private static List<String> tables(Connection target) throws SQLException {
        var tables = new ArrayList<String>();
        try (var rows = target.createStatement()
                .executeQuery(
                        "select tablename from pg_tables where schemaname = 'public' and tablename not like 'flyway%'")) {
            while (rows.next()) tables.add(rows.getString(1));
        }
        return tables;
    }

    private static void copy(Connection source, Connection target, String table) throws SQLException {
        try (var rows = source.createStatement().executeQuery("select to_jsonb(t)::text from " + table + " t");
                var insert = target.prepareStatement("insert into " + table
                        + " overriding system value select * from jsonb_populate_record(null::" + table
                        + ", ?::jsonb)")) {
            while (rows.next()) {
                insert.setString(1, inFirstWords(rows.getString(1)));
                insert.addBatch();
            }
            insert.executeBatch();
        }
    }

    /** States and fields of documents had other names then. */
    private static String inFirstWords(String row) {
        return row.replace("\"state\": \"QUEUED\"", "\"state\": \"WAITING\"")
                .replace("\"state\": \"SENDING\"", "\"state\": \"HANDING_OVER\"")
                .replace("\"act\": \"SAVE_SOURCE\"", "\"act\": \"save source\"")
                .replace("\"first_check\":", "\"first check\":")
                .replace("\"absence\": \"clears\"", "\"absence\": \"put right\"")
                .replace("\"absence\":\"clears\"", "\"absence\":\"put right\"");
    }
}
