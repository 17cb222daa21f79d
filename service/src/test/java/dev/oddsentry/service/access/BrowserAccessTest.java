package dev.oddsentry.service.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RawHttp;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.net.CookieManager;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** The ways into the service from a browser and from behind a proxy that speaks TLS. */
class BrowserAccessTest {
    private final RunningService service = RunningService.get();

    @Test
    void sessionOfAUserMadeInactiveEndsAtTheNextRequest() throws Exception {
        String login = "liv-" + System.nanoTime();
        service.api()
                .post(
                        "/api/people",
                        Map.of(
                                "login",
                                login,
                                "name",
                                "Liv",
                                "email",
                                "liv@skerryline.example",
                                "password",
                                "four-calm-otters",
                                "role",
                                "ANALYST"));
        var cookies = new CookieManager();
        var browser = HttpClient.newBuilder().cookieHandler(cookies).build();
        send(browser, "GET", "/api/session", null, "");
        String csrf = cookies.getCookieStore().getCookies().stream()
                .filter(each -> each.getName().equals("XSRF-TOKEN"))
                .findFirst()
                .orElseThrow()
                .getValue();
        String credentials = "{\"login\":\"" + login + "\",\"password\":\"four-calm-otters\"}";
        assertThat(send(browser, "POST", "/api/session", credentials, csrf).statusCode())
                .isEqualTo(200);
        assertThat(send(browser, "GET", "/api/rules", null, "").statusCode()).isEqualTo(200);
        service.execute("records", "update person set active = false where login = '" + login + "'");
        assertThat(send(browser, "GET", "/api/rules", null, "").statusCode()).isEqualTo(401);
        service.execute("records", "update person set active = true where login = '" + login + "'");
        assertThat(send(browser, "GET", "/api/rules", null, "").statusCode())
                .as("the session is gone")
                .isEqualTo(401);
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

    @Test
    void cookiesAreSecureBehindTlsAndConnectionsOfOneAddressAreLimited() throws IOException {
        String database = "records_doors_" + System.nanoTime();
        service.execute("postgres", "create database " + database);
        try (var node = service.startNode(
                database,
                service.postgres().jdbcUrl(database),
                "--oddsentry.base-url=https://odd.skerryline.example",
                "--oddsentry.web.max-connections-per-address=20")) {
            var stranger = HttpApi.stranger(RunningService.baseUrl(node));
            var answer = stranger.send("GET", "/api/session", null, Map.of());
            assertThat(answer.header("Strict-Transport-Security")).contains("max-age=");
            assertThat(answer.header("Set-Cookie")).contains("XSRF-TOKEN=", "Secure", "SameSite=Strict");
            var http = new RawHttp(RunningService.baseUrl(node));
            var sockets = new ArrayList<Socket>();
            try {
                for (int i = 0; i < 40; i++) sockets.add(http.open());
                assertThat(sockets.getLast().getInputStream().read())
                        .as("the last is closed at once")
                        .isEqualTo(-1);
            } finally {
                for (var socket : sockets) socket.close();
            }
            RunningService.await(
                    "room again",
                    () -> stranger.send("GET", "/api/session", null, Map.of()).status() == 401);
        }
    }

    @Test
    void plainHttpSetsNoStrictTransportSecurity() {
        assertThat(HttpApi.stranger(service.baseUrl())
                        .send("GET", "/login", null, Map.of())
                        .header("Strict-Transport-Security"))
                .isEmpty();
    }

    @Test
    void addressesOfErrorsAndOddPathsAreRefusedAsProblems() throws IOException {
        var http = new RawHttp(service.baseUrl());
        for (String line : new String[] {
            "GET /error",
            "GET /api/rules/a%2Fb",
            "GET /api/rules/..%2f..",
            "GET /api/%00",
            "GET /api/rules?x=%zz",
            "GET /\\api",
            "TRACE /api/rules",
            "GET /api/rules;x=1"
        }) {
            var answer = http.send(line + " HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n", new byte[0]);
            assertThat(answer.status()).as(line).isBetween(400, 499);
            assertThat(answer.isProblem()).as(line + ": " + answer.body()).isTrue();
        }
    }
}
