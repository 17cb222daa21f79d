package dev.oddsentry.service.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

class TokensTest {
    private final RunningService service = RunningService.get();
    private final HttpApi operator = service.api();
    private final String login = "tokens-" + UUID.randomUUID().toString().substring(0, 8);
    private HttpApi person = operator;

    @BeforeEach
    void someone() {
        operator.post(
                "/api/people",
                Map.of(
                        "login",
                        login,
                        "name",
                        "Tone Vik",
                        "email",
                        login + "@skerryline.example",
                        "password",
                        "long-enough-1",
                        "role",
                        "ANALYST",
                        "teams",
                        List.of()));
        person = new HttpApi(service.baseUrl(), logIn());
    }

    private String logIn() {
        return HttpApi.stranger(service.baseUrl())
                .post("/api/tokens", Map.of("login", login, "password", "long-enough-1"))
                .path("token")
                .asString();
    }

    private HttpApi with(String scope, int days) {
        return new HttpApi(
                service.baseUrl(),
                create(person, "night job", scope, days).path("token").asString());
    }

    private static JsonNode create(HttpApi by, String name, String scope, int days) {
        return by.post("/api/tokens/named", Map.of("name", name, "scope", scope, "days", days));
    }

    private static int status(HttpApi api, String method, String path) {
        return api.send(method, path, method.equals("GET") ? null : "{}", Map.of("Content-Type", "application/json"))
                .status();
    }

    @ParameterizedTest
    @CsvSource({
        // what is asked            READ   CHECK  WRITE  OPERATE
        "GET    /api/rules,         true,  true,  true,  true",
        "GET    /api/outbox,        true,  true,  true,  true",
        "GET    /api/tokens,        true,  true,  true,  true",
        "POST   /api/rules/R/preview,  true,  true,  true,  true",
        "POST   /api/rules/R/checks,   false, true,  true,  true",
        "POST   /api/rules/R/pause,    false, false, true,  true",
        "POST   /api/rules/R/activate, false, false, true,  true",
        "POST   /api/tokens/named,  false, false, false, true",
        "PUT    /api/session/password, false, false, false, true",
    })
    void aTokenIsGoodForItsUseAndNoMore(String asked, boolean read, boolean check, boolean write, boolean all) {
        var sailings = new LateSailings(service).active();
        String[] parts = asked.replace("/R/", "/" + sailings.name + "/").split(" +");
        var allowed = Map.of("READ", read, "CHECK", check, "WRITE", write, "OPERATE", all);
        allowed.forEach((scope, expected) -> {
            var answer = with(scope, 1)
                    .send(
                            parts[0],
                            parts[1],
                            parts[0].equals("GET") ? null : "{}",
                            Map.of("Content-Type", "application/json"));
            assertThat(answer.status() != 403)
                    .as(scope + ": " + answer.status() + " " + answer.text())
                    .isEqualTo(expected);
            if (!expected) assertThat(answer.text()).contains("This token is for \\\"" + scope.toLowerCase());
        });
    }

    @Test
    void aTokenNeverDoesMoreThanItsOwner() {
        assertThat(status(with("OPERATE", 1), "GET", "/api/audit")).isEqualTo(403);
    }

    @Test
    void tokensAreListedWithTheirLastUseAndRevoked() {
        var issued = create(person, "night job ø", "READ", 90);
        assertThat(issued.path("token").asString()).startsWith("odd_");
        var used = new HttpApi(service.baseUrl(), issued.path("token").asString());
        var listed = person.get("/api/tokens");
        assertThat(listed).hasSize(2);
        assertThat(listed.toString()).doesNotContain(issued.path("token").asString());
        var mine = listed.path(0);
        assertThat(mine.path("name").asString()).isEqualTo("night job ø");
        assertThat(mine.path("scope").asString()).isEqualTo("READ");
        assertThat(mine.path("lastUsedAt").isNull()).isTrue();
        assertThat(status(used, "GET", "/api/rules")).isEqualTo(200);
        assertThat(person.get("/api/tokens").path(0).path("lastUsedAt").isNull())
                .isFalse();

        String path = "/api/tokens/" + mine.path("id").asString();
        assertThat(status(used, "DELETE", path)).isEqualTo(403);
        assertThat(status(person, "DELETE", path)).isEqualTo(204);
        assertThat(status(used, "GET", "/api/rules")).isEqualTo(401);
        assertThat(status(person, "DELETE", path)).isEqualTo(404);
    }

    @Test
    void tokensOfOthersAreTheOperatorsAlone() {
        create(person, "mine", "READ", 1);
        String id = person.get("/api/tokens").path(0).path("id").asString();
        String first = login;
        someoneElse();
        assertThat(person.get("/api/tokens").toString()).doesNotContain(id);
        assertThat(status(person, "GET", "/api/tokens?everybody=true")).isEqualTo(403);
        assertThat(status(person, "DELETE", "/api/tokens/" + id)).isEqualTo(404);
        assertThat(operator.get("/api/tokens?everybody=true").toString()).contains(id, first);
        assertThat(status(operator, "DELETE", "/api/tokens/" + id)).isEqualTo(204);
    }

    private void someoneElse() {
        String other = login + "-2";
        operator.post(
                "/api/people",
                Map.of(
                        "login",
                        other,
                        "name",
                        "Odd Vik",
                        "email",
                        other + "@skerryline.example",
                        "password",
                        "long-enough-1",
                        "role",
                        "LEAD",
                        "teams",
                        List.of()));
        person = new HttpApi(
                service.baseUrl(),
                HttpApi.stranger(service.baseUrl())
                        .post("/api/tokens", Map.of("login", other, "password", "long-enough-1"))
                        .path("token")
                        .asString());
    }

    @Test
    void anExpiredTokenIsNoneAndLeavesTheList() {
        var issued = create(person, "short", "READ", 1);
        var used = new HttpApi(service.baseUrl(), issued.path("token").asString());
        String id = person.get("/api/tokens").path(0).path("id").asString();
        service.bean(DSLContext.class)
                .execute(
                        "update access_token set expires_at = now() - interval '1 second' where id = ?",
                        UUID.fromString(id));
        assertThat(status(used, "GET", "/api/rules")).isEqualTo(401);
        assertThat(person.get("/api/tokens").toString()).doesNotContain(id);
    }

    @ParameterizedTest
    @CsvSource({"'', READ, 30", "x, READ, 0", "x, READ, 367", "x, EVERYTHING, 30"})
    void whatIsNoTokenIsRefusedWithItsField(String name, String scope, int days) {
        var refused = person.send(
                "POST",
                "/api/tokens/named",
                "{\"name\":\"" + name + "\",\"scope\":\"" + scope + "\",\"days\":" + days + "}",
                Map.of("Content-Type", "application/json"));
        assertThat(refused.status()).isBetween(400, 422);
        assertThat(refused.text()).containsAnyOf("name", "scope", "days");
    }
}
