package dev.oddsentry.service.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jooq.DSLContext;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class ConsoleSessionsTest {
    private final RunningService service = RunningService.get();
    private final String login = "sessions-" + UUID.randomUUID().toString().substring(0, 8);

    /** A browser with cookies of its own. */
    private final class Browser {
        private final CookieManager cookies = new CookieManager();
        private final HttpClient http =
                HttpClient.newBuilder().cookieHandler(cookies).build();

        Browser loggedIn() throws IOException, InterruptedException {
            send("GET", "/api/session", null);
            var answer = send("POST", "/api/session", "{\"login\":\"" + login + "\",\"password\":\"long-enough-1\"}");
            assertThat(answer.statusCode()).isEqualTo(200);
            return this;
        }

        HttpResponse<String> send(String method, String path, String body) throws IOException, InterruptedException {
            var request = HttpRequest.newBuilder(URI.create(service.baseUrl() + path))
                    .header("Content-Type", "application/json")
                    .header("X-XSRF-TOKEN", cookie("XSRF-TOKEN"))
                    .method(
                            method,
                            body == null
                                    ? HttpRequest.BodyPublishers.noBody()
                                    : HttpRequest.BodyPublishers.ofString(body));
            return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
        }

        JsonNode sessions() throws IOException, InterruptedException {
            return new JsonMapper().readTree(send("GET", "/api/sessions", null).body());
        }

        boolean isLoggedIn() throws IOException, InterruptedException {
            return send("GET", "/api/session", null).statusCode() == 200;
        }

        String cookie(String name) {
            return cookies.getCookieStore().getCookies().stream()
                    .filter(each -> each.getName().equals(name))
                    .reduce((_, latest) -> latest)
                    .map(each -> each.getValue())
                    .orElse("none");
        }
    }

    @BeforeEach
    void someone() {
        service.api()
                .post(
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
                                "READER",
                                "teams",
                                List.of()));
    }

    @Test
    void oneSessionIsEndedAndTheOthersStay() throws Exception {
        var here = new Browser().loggedIn();
        var there = new Browser().loggedIn();
        var sessions = here.sessions();
        assertThat(sessions).hasSize(2);
        assertThat(sessions.toString()).doesNotContain(here.cookie("odd_session"), there.cookie("odd_session"));
        var other = sessions.valueStream()
                .filter(each -> !each.path("current").asBoolean())
                .toList();
        assertThat(other).hasSize(1);
        String path = "/api/sessions/" + other.getFirst().path("id").asString();
        assertThat(here.send("DELETE", path, null).statusCode()).isEqualTo(204);
        assertThat(there.isLoggedIn()).isFalse();
        assertThat(here.isLoggedIn()).isTrue();
        assertThat(here.send("DELETE", path, null).statusCode()).isEqualTo(404);
    }

    @Test
    void allOthersAreEndedAtOnce() throws Exception {
        var here = new Browser().loggedIn();
        var others = List.of(new Browser().loggedIn(), new Browser().loggedIn());
        assertThat(here.send("DELETE", "/api/sessions", null).body()).contains("\"sessions\":2");
        for (var other : others) assertThat(other.isLoggedIn()).isFalse();
        assertThat(here.sessions()).hasSize(1);
    }

    @Test
    void sessionsOfOthersAreNotFound() throws Exception {
        var here = new Browser().loggedIn();
        String id = here.sessions().path(0).path("id").asString();
        assertThat(service.api()
                        .send("DELETE", "/api/sessions/" + id, null, Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(here.isLoggedIn()).isTrue();
    }

    @Test
    void aSessionEndsAfterAWeekHoweverMuchItIsUsed() throws Exception {
        var here = new Browser().loggedIn();
        var records = service.bean(DSLContext.class);
        String age = "update spring_session set creation_time = creation_time - ? where principal_name = ?";
        records.execute(age, 6 * 86_400_000L, login);
        assertThat(here.isLoggedIn()).isTrue();
        records.execute(age, 86_400_000L + 60_000L, login);
        assertThat(here.isLoggedIn()).isFalse();
        assertThat(records.fetchValue("select count(*) from spring_session where principal_name = ?", login))
                .isEqualTo(0L);
    }
}
