package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.sql.SQLException;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** What can go wrong in a source or a rule: it fails with words, and nothing is lost or half-written. */
class FaultsTest {
    private final RunningService service = RunningService.get();
    private final LateSailings sailings = new LateSailings(service);

    private void failsSaying(String... words) {
        var check = service.api().check(sailings.name);
        assertThat(check.path("state").asString()).isEqualTo("FAILED");
        assertThat(check.path("reason").asString()).contains(words);
    }

    @Test
    void twoRowsOfOneIdentityFailTheCheckByName() {
        sailings.late("SK-1", 20).active();
        service.api().check(sailings.name);
        sailings.late("SK-1", 3).late("SK-9", 20);
        failsSaying("same key values (sailing): SK-1");
        assertThat(service.api()
                        .get("/api/rules/" + sailings.name + "/findings")
                        .path("total")
                        .asInt())
                .isEqualTo(1);
        sailings.change("delete from sailing_table where delay_min = 3");
        assertThat(service.api().check(sailings.name).path("updates").asInt()).isEqualTo(1);
    }

    @Test
    void aResultOverTheCapIsAnErrorAndNeverCutOff() {
        sailings.active();
        sailings.change("insert into sailing_table select 'SK-' || i, 20, null from generate_series(1, 1001) i");
        failsSaying("more than 1000 rows", "Nothing was evaluated");
        assertThat(service.api()
                        .get("/api/rules/" + sailings.name + "/findings")
                        .path("total")
                        .asInt())
                .isZero();
    }

    @Test
    void aQueryOverTheTimeLimitIsCancelledInTheSource() {
        service.api()
                .push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name
                        + "\", lateral (select pg_sleep(30)) s"));
        service.api().push(sailings.rule());
        service.api().post("/api/rules/" + sailings.name + "/activate", "");
        sailings.late("SK-1", 20);
        failsSaying("did not answer within 4 s", "cancelled");
    }

    @Test
    void conditionThatFailsNamesTheRowAndThePlace() {
        sailings.exceptions("100 / delay_min > 2")
                .late("SK-1", 20)
                .late("SK-0", 0)
                .active();
        failsSaying("the row SK-0", "division by zero in 100 / delay_min");
    }

    @Test
    void aTableThatChangedUnderTheRuleIsSaidInWords() {
        sailings.late("SK-1", 20).active();
        sailings.change("alter table sailing_table rename column reason to delay_reason");
        failsSaying("refused the query", "\"reason\" does not exist");
    }

    @Test
    void aSourceThatIsDownFailsTheCheckAndMemoryStands() {
        sailings.late("SK-1", 20).active();
        service.api().check(sailings.name);
        var working = Map.of(
                "jdbcUrl",
                service.postgres().jdbcUrl("ferry"),
                "username",
                "ferry_reader",
                "password",
                "reader",
                "maxRows",
                1000,
                "timeLimitSeconds",
                4);
        try {
            service.api()
                    .put(
                            "/api/sources/ferry",
                            Map.of(
                                    "jdbcUrl",
                                    "jdbc:postgresql://127.0.0.1:1/ferry",
                                    "username",
                                    "ferry_reader",
                                    "password",
                                    "reader"));
            failsSaying("could not be reached");
        } finally {
            service.api().put("/api/sources/ferry", working);
        }
        assertThat(service.api().check(sailings.name).path("state").asString()).isEqualTo("QUIET");
    }

    @Test
    void theSourcesRoleCannotWriteWhateverTheQuerySays() {
        sailings.late("SK-1", 20);
        var answer = service.api()
                .pushAnswer(sailings.query("with gone as (delete from \"" + sailings.name
                        + "\" returning *) select sailing, delay_min, reason from gone"));
        if (answer.status() == 200) {
            service.api().push(sailings.rule());
            service.api().post("/api/rules/" + sailings.name + "/activate", "");
            failsSaying("refused the query");
        }
        try (var connection = service.connect("ferry");
                var statement = connection.createStatement();
                var rows = statement.executeQuery("select count(*) from \"" + sailings.name + "\"")) {
            rows.next();
            assertThat(rows.getInt(1)).isEqualTo(1);
        } catch (SQLException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void askingAgainWithTheSameKeyGivesTheSameCheck() {
        sailings.late("SK-1", 20).active();
        var first = service.api()
                .send("POST", "/api/rules/" + sailings.name + "/checks", "", Map.of("Idempotency-Key", "k1"));
        var second = service.api()
                .send("POST", "/api/rules/" + sailings.name + "/checks", "", Map.of("Idempotency-Key", "k1"));
        assertThat(second.body().path("id")).isEqualTo(first.body().path("id"));
        assertThat(service.api().check(sailings.name).path("id"))
                .isNotEqualTo(first.body().path("id"));
    }

    @Test
    void aRuleThatIsNotActiveIsNotChecked() {
        sailings.late("SK-1", 20).active();
        service.api().post("/api/rules/" + sailings.name + "/pause", "");
        var refused = service.api().send("POST", "/api/rules/" + sailings.name + "/checks", "", Map.of());
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.body().path("detail").asString()).contains("not active");
    }
}
