package dev.oddsentry.service.accounts;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;

/** Programs that log in with tokens alone. */
class ServiceAccountTest {
    private final RunningService service = RunningService.get();
    private final HttpApi operator = service.api();
    private final String login = "nightly-" + UUID.randomUUID().toString().substring(0, 8);

    private HttpApi.Answer add(Map<String, Object> otherwise) {
        var body = new LinkedHashMap<String, Object>(
                Map.of("login", login, "name", "Nightly export", "email", "", "role", "ANALYST", "service", true));
        body.putAll(otherwise);
        return operator.postAnswer("/api/people", body);
    }

    private HttpApi.Answer token(HttpApi by, String of) {
        return by.postAnswer("/api/tokens/of/" + of, Map.of("name", "export", "scope", "READ", "days", 30));
    }

    @Test
    void actsByATokenThatAnOperatorMakes() {
        var added = add(Map.of());
        assertThat(added.status()).isEqualTo(201);
        assertThat(added.body().path("service").asBoolean()).isTrue();
        assertThat(added.body().path("invited").asBoolean()).isFalse();
        var program = new HttpApi(
                service.baseUrl(), token(operator, login).body().path("token").asString());
        assertThat(program.get("/api/session").path("login").asString()).isEqualTo(login);
        assertThat(operator.get("/api/audit?q=" + login).toString()).contains("read, for 30 days, for " + login);
        operator.post("/api/people/" + login + "/disable", Map.of());
        assertThat(program.send("GET", "/api/session", null, Map.of()).status()).isEqualTo(401);
        assertThat(token(operator, login).status()).isEqualTo(422);
    }

    @Test
    void hasNoPasswordAndNoInvitation() {
        assertThat(add(Map.of("password", "long-enough-1")).status()).isEqualTo(422);
        add(Map.of());
        assertThat(operator.postAnswer("/api/people/" + login + "/invitation", Map.of())
                        .text())
                .contains("A service account has no password");
        assertThat(HttpApi.stranger(service.baseUrl())
                        .postAnswer("/api/tokens", Map.of("login", login, "password", ""))
                        .status())
                .isEqualTo(401);
    }

    @Test
    void peopleMakeTheirTokensThemselvesAndOperatorsAloneThoseOfPrograms() {
        add(Map.of());
        var analyst = HttpApi.newUser(service, login + "-p", "ANALYST", List.of(), login + "@skerryline.example");
        assertThat(token(operator, login + "-p").text()).contains("People create their tokens themselves");
        assertThat(token(analyst, login).status()).isEqualTo(403);
    }

    @Test
    void aPersonNeedsAnAddress() {
        assertThat(add(Map.of("service", false, "password", "long-enough-1")).text())
                .contains("needs an address");
    }
}
