package dev.oddsentry.service.signon;

import dev.oddsentry.service.HttpApi.Answer;
import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import tools.jackson.databind.json.JsonMapper;

/** A browser that keeps cookies and goes where it is sent, one step at a time where a test wants to look. */
final class Browser {
    private static final Pattern CSRF_FIELD = Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"");
    /** What the service of the tests says its address is; its port is another one at each start. */
    static final String CONFIGURED = "http://127.0.0.1:8480";

    private static final JsonMapper JSON = new JsonMapper();

    private final CookieManager cookies = new CookieManager();
    private final HttpClient http =
            HttpClient.newBuilder().cookieHandler(cookies).build();
    private final String service;

    Browser(String service) {
        this.service = service;
    }

    /** @param last the page where it stays */
    record Stay(URI last, int status, String text) {}

    /** Goes to a page of the service, and on from there; types the password if the provider asks. */
    Stay open(String path, String login, String password) {
        return follow(URI.create(service + path), login, password);
    }

    Stay follow(URI first, String login, String password) {
        URI at = first;
        var answer = get(at);
        for (int step = 0; step < 12; step++) {
            var next = next(at, answer);
            if (next.isEmpty()) return new Stay(at, answer.statusCode(), answer.body());
            at = next.get();
            answer = get(at);
            // Somebody who is refused stays on the page.
            if (at.getPath().equals("/login")
                    && at.getQuery() == null
                    && answer.body().contains("name=\"username\""))
                answer = post(at, Map.of("username", login, "password", password, "_csrf", csrfField(answer.body())));
        }
        throw new AssertionError("no end of it at " + at);
    }

    /** Where a page of the service sends the browser, without going there. */
    URI sentTo(String path) {
        URI at = URI.create(service + path);
        return next(at, get(at)).orElseThrow();
    }

    private Optional<URI> next(URI from, HttpResponse<String> answer) {
        return answer.headers()
                .firstValue("Location")
                .map(from::resolve)
                .map(Object::toString)
                .map(to -> URI.create(to.startsWith(CONFIGURED) ? service + to.substring(CONFIGURED.length()) : to));
    }

    private static String csrfField(String page) {
        var field = CSRF_FIELD.matcher(page);
        return field.find() ? field.group(1) : "";
    }

    private HttpResponse<String> get(URI address) {
        return send(HttpRequest.newBuilder(address).header("Accept", "text/html"));
    }

    private HttpResponse<String> post(URI address, Map<String, String> form) {
        String body = form.entrySet().stream()
                .map(field -> field.getKey() + "=" + URLEncoder.encode(field.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
        return send(HttpRequest.newBuilder(address)
                .header("Accept", "text/html")
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(BodyPublishers.ofString(body)));
    }

    /** A request of the console. */
    Answer api(String method, String path, Map<String, Object> body) {
        var request = HttpRequest.newBuilder(URI.create(service + path))
                .header("Content-Type", "application/json")
                .method(
                        method,
                        body.isEmpty()
                                ? BodyPublishers.noBody()
                                : BodyPublishers.ofString(JSON.writeValueAsString(body)));
        cookie("XSRF-TOKEN").ifPresent(token -> request.header("X-XSRF-TOKEN", token));
        var response = send(request);
        boolean json = response.headers().firstValue("Content-Type").orElse("").contains("json");
        return new Answer(
                response.statusCode(), response, json ? JSON.readTree(response.body()) : JSON.createObjectNode());
    }

    Optional<String> cookie(String name) {
        return cookies.getCookieStore().getCookies().stream()
                .filter(each -> each.getName().equals(name))
                .map(HttpCookie::getValue)
                .findFirst();
    }

    private HttpResponse<String> send(HttpRequest.Builder request) {
        try {
            return http.send(request.build(), BodyHandlers.ofString());
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
