package dev.oddsentry.service.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RunningService;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class AccessTest {
    private final RunningService service = RunningService.get();
    private final HttpApi nobody = new HttpApi(service.baseUrl(), null);

    @ParameterizedTest
    @CsvSource({
        "GET,    /api/session",
        "GET,    /api/rules",
        "GET,    /api/rules/x",
        "POST,   /api/rules/x/checks",
        "POST,   /api/rules/x/preview",
        "GET,    /api/rules/x/findings",
        "PUT,    /api/definitions",
        "GET,    /api/definitions/rule/x",
        "GET,    /api/outbox",
        "GET,    /api/outbox/00000000-0000-0000-0000-000000000000/html",
        "GET,    /api/sources",
        "PUT,    /api/sources/x",
        "GET,    /api/people",
        "POST,   /api/people",
        "GET,    /api/openapi.json",
        "GET,    /actuator/prometheus",
        "GET,    /actuator/env",
        "DELETE, /api/tokens/current",
    })
    void nothingIsReachableWithoutALogIn(String method, String path) {
        var answer = nobody.send(
                method,
                path,
                method.equals("GET") ? null : "{}",
                Map.of("Authorization", "Bearer odd_wrong", "Content-Type", "application/json"));
        assertThat(answer.status()).isEqualTo(401);
        assertThat(answer.header("Content-Type")).contains("application/problem+json");
    }

    @Test
    void aWrongPasswordAndAnUnknownNameGetTheSameAnswer() {
        for (String login : new String[] {"operator", "nobody-" + System.nanoTime()}) {
            var answer = nobody.send(
                    "POST",
                    "/api/tokens",
                    "{\"login\":\"" + login + "\",\"password\":\"guess\"}",
                    Map.of("Content-Type", "application/json"));
            assertThat(answer.status()).isEqualTo(401);
            assertThat(answer.body().path("detail").asString()).isEqualTo("The log-in name or the password is wrong.");
        }
    }

    @Test
    void theConsolesSessionNeedsItsCsrfTokenAndStrictCookies() throws Exception {
        var cookies = new CookieManager();
        var browser = HttpClient.newBuilder().cookieHandler(cookies).build();
        send(browser, "GET", "/api/session", null, "");
        String csrf = cookie(cookies, "XSRF-TOKEN").getValue();
        String credentials = "{\"login\":\"operator\",\"password\":\"" + RunningService.OPERATOR_PASSWORD + "\"}";
        assertThat(send(browser, "POST", "/api/session", credentials, "").statusCode())
                .isEqualTo(403);
        var loggedIn = send(browser, "POST", "/api/session", credentials, csrf);
        assertThat(loggedIn.statusCode()).isEqualTo(200);
        assertThat(loggedIn.body())
                .contains("\"login\":\"operator\"")
                .doesNotContain("password")
                .doesNotContain("hash");
        assertThat(loggedIn.headers().allValues("set-cookie"))
                .anySatisfy(set -> assertThat(set)
                        .startsWith("odd_session=")
                        .contains("HttpOnly")
                        .contains("SameSite=Strict"));
        assertThat(send(browser, "GET", "/api/rules", null, "").statusCode()).isEqualTo(200);
        assertThat(send(browser, "POST", "/api/people", "{}", "").statusCode())
                .as("without the CSRF token")
                .isEqualTo(403);
        String fresh = cookie(cookies, "XSRF-TOKEN").getValue();
        assertThat(send(browser, "DELETE", "/api/session", null, fresh).statusCode())
                .isEqualTo(200);
        assertThat(send(browser, "GET", "/api/rules", null, "").statusCode()).isEqualTo(401);
    }

    private HttpResponse<String> send(HttpClient browser, String method, String path, String body, String csrf)
            throws Exception {
        var request = HttpRequest.newBuilder(URI.create(service.baseUrl() + path))
                .header("Content-Type", "application/json")
                .method(
                        method,
                        body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body));
        if (!csrf.isEmpty()) request.header("X-XSRF-TOKEN", csrf);
        return browser.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    private static HttpCookie cookie(CookieManager cookies, String name) {
        return cookies.getCookieStore().getCookies().stream()
                .filter(each -> each.getName().equals(name))
                .reduce((_, latest) -> latest)
                .orElseThrow();
    }

    @Test
    void analystsDoNotManageSourcesAndPeople() {
        String login = "ana-" + System.nanoTime();
        service.api()
                .post(
                        "/api/people",
                        Map.of(
                                "login",
                                login,
                                "name",
                                "Ana",
                                "email",
                                "ana@skerryline.example",
                                "password",
                                "long-enough-1",
                                "role",
                                "ANALYST"));
        var analyst = HttpApi.loggedIn(service.baseUrl(), login, "long-enough-1");
        assertThat(analyst.get("/api/rules").isArray()).isTrue();
        var json = Map.of("Content-Type", "application/json");
        assertThat(analyst.send(
                                "PUT",
                                "/api/sources/x",
                                "{\"jdbcUrl\":\"jdbc:postgresql://127.0.0.1/x\",\"username\":\"u\",\"password\":\"p\"}",
                                json)
                        .status())
                .isEqualTo(403);
        assertThat(analyst.send(
                                "POST",
                                "/api/people",
                                "{\"login\":\"x\",\"name\":\"x\",\"email\":\"x@x.example\",\"password\":\"long-enough-1\",\"role\":\"OPERATOR\"}",
                                json)
                        .status())
                .isEqualTo(403);
        assertThat(analyst.send("GET", "/actuator/prometheus", null, Map.of()).status())
                .isEqualTo(403);
    }

    @Test
    void secretsAreNeverReturnedAndStoredEncrypted() throws Exception {
        assertThat(service.api().get("/api/sources").toString())
                .contains("ferry_reader")
                .doesNotContain("\"reader\"")
                .doesNotContain("password");
        try (var connection = service.connect("records");
                var statement = connection.createStatement();
                var rows = statement.executeQuery("select encode(password_cipher, 'escape') from source")) {
            while (rows.next()) assertThat(rows.getString(1)).doesNotContain("reader");
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"/", "/today", "/rules/late-sailings", "/outbox"})
    void pagesCarryAPolicyThatRunsOurOwnScriptsOnly(String path) {
        var answer = nobody.send("GET", path, null, Map.of());
        assertThat(answer.status()).isEqualTo(200);
        assertThat(answer.header("Content-Security-Policy"))
                .contains("default-src 'self'")
                .contains("object-src 'none'")
                .doesNotContain("unsafe-eval");
        assertThat(answer.header("X-Content-Type-Options")).isEqualTo("nosniff");
        assertThat(answer.header("X-Frame-Options")).isEqualTo("SAMEORIGIN");
    }

    @Test
    void theApiDescribesItself() {
        var document = service.api().get("/api/openapi.json");
        assertThat(document.path("paths").has("/api/rules/{name}/checks")).isTrue();
        assertThat(document.path("paths")
                        .path("/api/rules")
                        .path("get")
                        .path("responses")
                        .path("200")
                        .path("content")
                        .has("application/json"))
                .isTrue();
    }
}
