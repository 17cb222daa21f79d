package dev.oddsentry.service.db;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.RunningService;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import org.flywaydb.core.Flyway;
import org.junit.jupiter.api.Test;

/** V28, V29, V31 and V32 on a database with data in it. */
class StoredValuesMigrationTest {
    private final RunningService service = RunningService.get();
    private final String database = "events_" + UUID.randomUUID().toString().substring(0, 8);

    private void migrate(String target) {
        Flyway.configure()
                .dataSource(service.postgres().jdbcUrl(database), "odd", "")
                .target(target)
                .load()
                .migrate();
    }

    private List<String> texts(String sql) throws SQLException {
        try (var connection = service.connect(database);
                var rows = connection.createStatement().executeQuery(sql)) {
            var texts = new ArrayList<String>();
            while (rows.next()) texts.add(rows.getString(1));
            return texts;
        }
    }

    @Test
    void kindsOfEventsBecomeNamesWithTheirUpdatesBeside() throws SQLException {
        service.execute("postgres", "create database " + database);
        migrate("28");
        for (String event : List.of(
                "('opened', 'reported as new')",
                "('opened', 'treated as known')",
                "('reported as worsened, changed', null)",
                "('reported', null)",
                "('escalated, because nobody had taken it,', null)",
                "('back in the date window', null)",
                "('back before confirm_after', null)",
                "('no longer snoozed', null)",
                "('take ended', null)",
                "('forgotten while pending', null)"))
            service.execute(
                    database,
                    "insert into finding_event (finding_id, severity, kind, heard) select 1, 'WARNING', k, h from (values "
                            + event + ") as v (k, h)");
        migrate("29");
        assertThat(texts("select kind || coalesce(' ' || at_opening, '') || coalesce(' ' || updates::text, '')"
                        + " from finding_event order by id"))
                .isEqualTo(Arrays.asList(
                        "OPENED REPORTED {new}",
                        "OPENED TREATED_AS_KNOWN",
                        "REPORTED {worsened,changed}",
                        "REPORTED",
                        "ESCALATED",
                        "BACK_IN_WINDOW",
                        "BACK_BEFORE_CONFIRMED",
                        "SNOOZE_WITHDRAWN",
                        "TAKE_ENDED",
                        "FORGOTTEN_WHILE_PENDING"));
    }

    @Test
    void numbersOfABackTestGetTheNamesOfTheApi() throws SQLException {
        service.execute("postgres", "create database " + database);
        migrate("26");
        service.execute(
                database,
                "set session_replication_role = replica; insert into long_work (id, kind, rule_id, asked_by, asked_at, ask, state, result) values"
                        + " (gen_random_uuid(), 'BACK_TEST', gen_random_uuid(), gen_random_uuid(), now(), '{}', 'DONE', '"
                        + "{\"warmUp\":1,\"variants\":[{\"thresholds\":{\"news\":3},\"checks\":2,\"mails\":1,\"news\":4,\"mostExceptions\":5,"
                        + "\"notJudged\":0,\"slots\":[{\"slot\":\"2026-05-04T04:40:00Z\",\"exceptions\":5,\"critical\":1,\"news\":4,\"notJudged\":0}]}]}')");
        migrate("28");
        assertThat(texts("select jsonb_path_query(result, '$.variants[*].updates')::text from long_work"))
                .containsExactly("4");
        assertThat(texts("select jsonb_path_query(result, '$.variants[*].slots[*].updates')::text from long_work"))
                .containsExactly("4");
        assertThat(texts("select jsonb_path_query(result, '$.variants[*].thresholds')::text from long_work"))
                .containsExactly("{\"news\": 3}");
        assertThat(texts("select result::text from long_work")).noneMatch(text -> text.contains("notJudged"));
    }

    @Test
    void aPrivateLayoutStaysPrivate() throws SQLException {
        service.execute("postgres", "create database " + database);
        migrate("42");
        service.execute(
                database,
                "insert into definition (id, kind, name, revision) select gen_random_uuid(), kind, name, 2 from"
                        + " (values ('LAYOUT', 'mine'), ('LAYOUT', 'ours'), ('QUERY', 'sailings')) as v (kind, name);"
                        + " insert into definition_revision (definition_id, revision, document, reason, at)"
                        + " select id, number, case when name = 'mine' and number = 2"
                        + " then '{\"private_to\":\"ines\"}' else '{}' end::json, '', now()"
                        + " from definition, generate_series(1, 2) as number");
        migrate("43");
        assertThat(texts("select name || coalesce(' of ' || private_to, '') from definition order by name"))
                .containsExactly("mine of ines", "ours", "sailings");
        assertThat(texts("select name from definition where visible_to is not null"))
                .isEmpty();
    }

    @Test
    void actsOfTheAuditBecomeNamesAndWordsOfOthersStayInTheDetail() throws SQLException {
        service.execute("postgres", "create database " + database);
        migrate("30");
        service.execute(
                database,
                "insert into audit_event (at, act, subject, detail) values (now(), 'stop mail', 'Late', null),"
                        + " (now(), 'save round-up', 'week', 'revision 3'), (now(), 'export events.csv', 'late', null),"
                        + " (now(), 'repaint the quay', 'Holm', 'in white'), (now(), 'repaint the quay', 'Vik', null)");
        migrate("31");
        assertThat(texts("select act || coalesce(' ' || detail, '') from audit_event order by id"))
                .containsExactly(
                        "CANCEL_MESSAGE",
                        "SAVE_ROUND_UP revision 3",
                        "EXPORT_FINDINGS events.csv",
                        "EARLIER repaint the quay: in white",
                        "EARLIER repaint the quay");
    }

    @Test
    void causesOfIncidentsBecomeKindsAndNames() throws SQLException {
        service.execute("postgres", "create database " + database);
        migrate("31");
        for (String cause : List.of(
                "source ferry",
                "rule late-sailings",
                "awaiting approval: rule",
                "no rows from cargo",
                "mail reaches nobody",
                "mail unconfirmed",
                "mail to ida@skerryline.example",
                "the tide"))
            service.execute(database, "insert into incident (cause, began_at) values ('" + cause + "', now())");
        migrate("32");
        assertThat(texts("select kind || '|' || name from incident order by id"))
                .containsExactly(
                        "SOURCE|ferry",
                        "RULE|late-sailings",
                        "AWAITING_APPROVAL|rule",
                        "NO_ROWS|cargo",
                        "MAIL_UNDELIVERED|",
                        "MAIL_UNCONFIRMED|",
                        "MAIL_BLOCKED|ida@skerryline.example",
                        "RULE|the tide");
    }
}
