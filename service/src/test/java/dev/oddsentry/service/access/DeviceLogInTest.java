package dev.oddsentry.service.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A program without a browser, and a person who says yes or no to it. */
class DeviceLogInTest {
    private final RunningService service = RunningService.get();
    private final HttpApi program = HttpApi.stranger(service.baseUrl());
    private final String login = "device-" + UUID.randomUUID().toString().substring(0, 8);
    private final HttpApi person = HttpApi.newUser(service, login, "ANALYST", List.of(), login + "@skerryline.example");

    private JsonNode start() {
        return program.post("/api/device-log-ins", Map.of("name", "odd on the bridge"));
    }

    private HttpApi.Answer ask(JsonNode started) {
        return program.postAnswer(
                "/api/device-log-ins/token",
                Map.of("deviceCode", started.path("deviceCode").asString()));
    }

    private HttpApi.Answer answer(String code, boolean allow) {
        return person.postAnswer("/api/device-log-ins/" + code + "/answer", Map.of("allow", allow));
    }

    @Test
    void givesATokenOfWhoAllowsItOnce() {
        var started = start();
        String code = started.path("userCode").asString();
        assertThat(code).matches("[BCDFGHJKLMNPQRSTVWXZ]{4}-[BCDFGHJKLMNPQRSTVWXZ]{4}");
        assertThat(ask(started).body().path("state").asString()).isEqualTo("WAITING");
        assertThat(person.get("/api/device-log-ins/" + code).path("name").asString())
                .isEqualTo("odd on the bridge");
        assertThat(answer(code.toLowerCase().replace("-", " ").replace(" ", "%20"), true)
                        .status())
                .as("as people type it")
                .isEqualTo(204);
        var allowed = ask(started);
        var token = allowed.body().path("token").path("token").asString();
        assertThat(new HttpApi(service.baseUrl(), token)
                        .get("/api/session")
                        .path("login")
                        .asString())
                .isEqualTo(login);
        assertThat(ask(started).status()).as("once").isEqualTo(404);
        assertThat(answer(code, true).status()).isEqualTo(404);
    }

    @Test
    void aRefusalIsNoLogInAndAnAnswerIsFinal() {
        var started = start();
        String code = started.path("userCode").asString();
        assertThat(answer(code, false).status()).isEqualTo(204);
        assertThat(answer(code, true).status()).isEqualTo(404);
        assertThat(ask(started).body().toString()).isEqualTo("{\"state\":\"REFUSED\",\"token\":null}");
        assertThat(ask(started).status()).isEqualTo(404);
    }

    @Test
    void endsAfterTenMinutesAndWithWhoAllowedIt() {
        var old = start();
        service.changeRecords(
                "update device_request set begun_at = begun_at - interval '11 minutes' where user_code = '"
                        + old.path("userCode").asString() + "'");
        assertThat(answer(old.path("userCode").asString(), true).status()).isEqualTo(404);
        assertThat(ask(old).status()).isEqualTo(404);
        var started = start();
        answer(started.path("userCode").asString(), true);
        service.api().post("/api/people/" + login + "/disable", Map.of());
        assertThat(ask(started).body().path("state").asString()).isEqualTo("REFUSED");
    }

    @Test
    void programsThatAskAtOnceGetOneToken() throws Exception {
        var started = start();
        answer(started.path("userCode").asString(), true);
        Callable<HttpApi.Answer> question = () -> ask(started);
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            long tokens = threads.invokeAll(Collections.nCopies(12, question)).stream()
                    .filter(each -> each.resultNow().status() == 200)
                    .count();
            assertThat(tokens).isEqualTo(1);
        }
    }

    @Test
    void strangersAnswerNothingAndMadeUpCodesLeadNowhere() {
        String code = start().path("userCode").asString();
        assertThat(program.postAnswer("/api/device-log-ins/" + code + "/answer", Map.of("allow", true))
                        .status())
                .isEqualTo(403);
        assertThat(program.postAnswer("/api/device-log-ins/token", Map.of("deviceCode", "made-up"))
                        .status())
                .isEqualTo(404);
        for (String typed : List.of("x", "AAAA-AAAA", "' or 1=1", "ÆØÅÆ-ØÅÆØ"))
            assertThat(person.send(
                                    "GET",
                                    "/api/device-log-ins/"
                                            + java.net.URLEncoder.encode(
                                                    typed, java.nio.charset.StandardCharsets.UTF_8),
                                    null,
                                    Map.of())
                            .status())
                    .as(typed)
                    .isEqualTo(404);
        answer(code, false);
    }
}
