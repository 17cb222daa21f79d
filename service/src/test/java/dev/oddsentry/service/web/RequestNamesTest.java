package dev.oddsentry.service.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What a request does not know is refused by name, since a slip would otherwise do something else than was asked. */
class RequestNamesTest {
    private final HttpApi api = RunningService.get().api();

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "POST | /api/holds | {\"why\":\"a slip\"} | Unknown field \"why\". Known: reason, rule, source.",
                "POST | /api/holds | {\"raeson\":\"a slip\"} | Unknown field \"raeson\". Did you mean \"reason\"? Known: reason, rule, source.",
                "PUT | /api/teams/crew | {\"addresses\":[],\"adresses\":[]} | Unknown field \"adresses\". Did you mean \"addresses\"? Known: addresses, signature.",
                "POST | /api/bulk-actions | {\"action\":\"SLEEP\",\"rules\":[]} | The JSON has a value that does not fit at \"action\". Values: PAUSE, ACTIVATE, CHECK, HAND_OVER, RECIPIENTS.",
            })
    void unknownFieldOfABodyIsRefused(String method, String path, String body, String detail) {
        var refused = api.send(method, path, body, Map.of("Content-Type", "application/json"));
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.body().path("detail").asString()).isEqualTo(detail);
    }

    @Test
    void fieldsThatDependOnTheDefinitionAreTaken() {
        var triggered = api.send(
                "POST",
                "/api/events/no-rule-waits-for-this",
                "{\"values\":{\"sailing\":\"SK-1\"}}",
                Map.of("Content-Type", "application/json", "Idempotency-Key", "names"));
        assertThat(triggered.text()).doesNotContain("Unknown field");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "/api/outbox?rul=late | Unknown parameter \"rul\". Did you mean \"rule\"? Known: after, q, rule, state.",
                "/api/findings?marked=BY_NOBODY | Unknown parameter \"marked\". Known: after, handling, q, rule, severity, state.",
                "/api/rules?state=ACTIVE | Unknown parameter \"state\".",
            })
    void unknownParameterIsRefused(String path, String detail) {
        var refused = api.send("GET", path, null, Map.of());
        assertThat(refused.status()).isEqualTo(400);
        assertThat(refused.body().path("detail").asString()).isEqualTo(detail);
    }

    @Test
    void noListTakesAParameterThatItDoesNotDescribe() {
        JsonNode paths = api.get("/api/openapi.json").path("paths");
        for (var path : paths.properties()) {
            String name = path.getKey();
            boolean anyName = path.getValue().toString().contains("QueryParameters");
            if (anyName
                    || name.contains("{")
                    || !name.startsWith("/api/")
                    || !path.getValue().has("get")) continue;
            if (name.equals("/api/changes")) continue;
            assertThat(api.send("GET", name + "?no_such_parameter=1", null, Map.of())
                            .text())
                    .as(name)
                    .contains("no_such_parameter");
        }
    }

    @Test
    void columnsOfAKeyAreTaken() {
        assertThat(api.send("GET", "/api/rules/no-such-rule/explanation?any_column=1", null, Map.of())
                        .status())
                .isEqualTo(404);
    }
}
