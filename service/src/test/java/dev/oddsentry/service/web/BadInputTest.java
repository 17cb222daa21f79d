package dev.oddsentry.service.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BadInputTest {
    private final RunningService service = RunningService.get();
    private final LateSailings sailings = new LateSailings(service);

    @BeforeEach
    void saveTheQuery() {
        service.api().push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                // in the rule replace | by | message | suggestion
                "reason is null | resaon is null | unknown column \"resaon\" | reason",
                "delay_min > 15 | delay_min > 'x' | cannot compare | null",
                "key: [sailing] | key: [sialing] | unknown column \"sialing\" | sailing",
                "zone: Europe/Oslo | parameters: { since: today } | has no parameter since | null",
                "kind: rule | kind: [ | this is not YAML | null",
            })
    void aRuleThatDoesNotFitIsRefusedWithItsPlace(String replaced, String by, String message, String suggestion) {
        var answer = service.api().pushAnswer(sailings.rule().replace(replaced, by));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.header("Content-Type")).contains("problem+json");
        var problem = answer.body().path("problems").path(0);
        assertThat(problem.path("message").asString()).contains(message);
        assertThat(problem.path("place").path("line").asInt()).isPositive();
        assertThat(problem.path("suggestion").asString("null")).isEqualTo(suggestion);
        assertThat(service.api()
                        .send("GET", "/api/rules/" + sailings.name, null, Map.of())
                        .status())
                .as("nothing was saved")
                .isEqualTo(404);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "delete from t                          | expected select or with, saw \"delete\"",
                "select 1; delete from t                | a second one starts after this ;",
                "select ';' as \"a;b\" -- ; ;           | ok",
                "select 1 as x /* ; */;                 | ok",
                "select $$;$$ as x                      | ok",
                "select nope                            | column \"nope\" does not exist",
                "select * from no_such_table            | relation \"no_such_table\" does not exist",
                "select 1 as a, 2 as a                  | two columns are named \"a\"",
                "select 1 as x where now() > :since     | which parameters does not declare",
                "                                       | \"sql\" is missing",
                "do $$ begin end $$                     | expected select or with",
            })
    void aQueryThatDoesNotReadIsRefused(String sql, String message) {
        String document = "kind: query\nname: q-" + System.nanoTime() + "\nsource: ferry\nsql: |\n  "
                + (sql == null ? "" : sql) + "\n";
        var answer = service.api().pushAnswer(document);
        if (message.equals("ok")) assertThat(answer.status()).as(answer.text()).isEqualTo(200);
        else {
            assertThat(answer.status()).isEqualTo(422);
            assertThat(answer.body().path("problems").path(0).path("message").asString())
                    .contains(message);
        }
    }

    @Test
    void aQueryThatWouldBreakARuleIsRefusedAndTheOldOneStands() {
        service.api().push(sailings.rule());
        var answer = service.api()
                .pushAnswer(sailings.query("select sailing, delay_min from \"" + sailings.name + "\"")
                        .replace(", reason: { label: Reason }", ""));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.text()).contains("the rule " + sailings.name + " uses this query: unknown column");
    }

    @Test
    void aNameOfAnotherRuleIsTaken() {
        service.api().push(sailings.rule());
        var answer = service.api().pushAnswer("id: 11111111-2222-3333-4444-555555555555\n" + sailings.rule());
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.text()).contains("belongs to another rule");
    }

    @Test
    void aRuleWithoutARecipientDoesNotBecomeActive() {
        service.api().push(sailings.rule().replace("delivery: { to: [" + sailings.recipient + "] }", ""));
        var answer = service.api().send("POST", "/api/rules/" + sailings.name + "/activate", "", Map.of());
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.body().path("detail").asString()).contains("no recipient");
    }

    @Test
    void anUnknownNameOffersTheNearest() {
        service.api().push(sailings.rule());
        var answer = service.api().send("POST", "/api/rules/x" + sailings.name + "/checks", "", Map.of());
        assertThat(answer.status()).isEqualTo(404);
        assertThat(answer.body().path("detail").asString()).contains("Did you mean \"" + sailings.name + "\"?");
    }

    @ParameterizedTest
    @CsvSource({
        "GET, /api/nothing, 404",
        "GET, /api/checks/not-a-uuid, 400",
        "DELETE, /api/rules, 405",
        "POST, /api/people, 400"
    })
    void wrongCallsGetProblemDocuments(String method, String path, int status) {
        var answer = service.api().send(method, path, "not json", Map.of("Content-Type", "application/json"));
        assertThat(answer.status()).isEqualTo(status);
        assertThat(answer.header("Content-Type")).contains("problem+json");
    }

    @Test
    void aPersonWhoMistypedAnAddressGetsTheConsoleAndAProgramAProblem() {
        var api = RunningService.get().api();
        var page = api.send("GET", "/no/such/page", null, Map.of("Accept", "text/html,application/xhtml+xml"));
        assertThat(page.status()).isEqualTo(404);
        assertThat(page.text()).contains("<div id=\"root\">");
        assertThat(api.send("GET", "/no/such/page", null, Map.of("Accept", "application/json"))
                        .text())
                .contains("\"status\":404");
        assertThat(api.send("GET", "/api/no-such-page", null, Map.of("Accept", "text/html"))
                        .text())
                .contains("\"status\":404");
    }
}
