package dev.oddsentry.service;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The HTTP API as a program meets it. */
public final class HttpApi {
    private static final JsonMapper JSON = new JsonMapper();

    private final HttpClient http = HttpClient.newHttpClient();
    private final String baseUrl;
    private final String token;

    public HttpApi(String baseUrl, String token) {
        this.baseUrl = baseUrl;
        this.token = token;
    }

    public static HttpApi loggedIn(String baseUrl, String login, String password) {
        var issued = new HttpApi(baseUrl, null).post("/api/tokens", Map.of("login", login, "password", password));
        return new HttpApi(baseUrl, issued.path("token").asString());
    }

    /**
     * Someone new, added by the operator.
     *
     * @param role as the API has it, such as {@code ANALYST}
     */
    public static HttpApi newUser(RunningService service, String login, String role, List<String> teams, String email) {
        String password = "long-enough-1";
        var user = Map.of(
                "login", login, "name", login, "email", email, "password", password, "role", role, "teams", teams);
        service.api().post("/api/people", user);
        return loggedIn(service.baseUrl(), login, password);
    }

    /** Someone who has not logged in. */
    public static HttpApi stranger(String baseUrl) {
        return new HttpApi(baseUrl, null);
    }

    /** @param body empty for an answer that is not JSON */
    public record Answer(int status, HttpResponse<String> response, JsonNode body) {
        public String header(String name) {
            return response.headers().firstValue(name).orElse("");
        }

        public String text() {
            return response.body();
        }
    }

    public JsonNode get(String path) {
        return expectOk(send("GET", path, null, Map.of()));
    }

    public JsonNode post(String path, Object body) {
        return expectOk(postAnswer(path, body));
    }

    public JsonNode put(String path, Object body) {
        return expectOk(send("PUT", path, JSON.writeValueAsString(body), Map.of("Content-Type", "application/json")));
    }

    public JsonNode delete(String path) {
        return expectOk(send("DELETE", path, "", Map.of()));
    }

    public Answer postYaml(String path, String document) {
        return send("POST", path, document, Map.of("Content-Type", "application/yaml"));
    }

    public Answer postAnswer(String path, Object body) {
        return send("POST", path, JSON.writeValueAsString(body), Map.of("Content-Type", "application/json"));
    }

    /** Saves a document, with what is asked besides, such as {@code ?treatAsKnown=true}. */
    public JsonNode push(String document, String query) {
        return expectOk(send("PUT", "/api/definitions" + query, document, Map.of("Content-Type", "application/yaml")));
    }

    public Answer pushAnswer(String document) {
        return send("PUT", "/api/definitions", document, Map.of("Content-Type", "application/yaml"));
    }

    public JsonNode push(String document) {
        return expectOk(pushAnswer(document));
    }

    /** A check of its own, however short ago the last one was. */
    public JsonNode check(String rule) {
        return expectOk(send("POST", "/api/rules/" + rule + "/checks?again=true", "", Map.of()));
    }

    private static JsonNode expectOk(Answer answer) {
        if (answer.status >= 400) throw new AssertionError(answer.status + " " + answer.response.body());
        return answer.body;
    }

    /** A file, as it is. */
    public byte[] bytes(String path) {
        var request = HttpRequest.newBuilder(URI.create(baseUrl + path)).header("Authorization", "Bearer " + token);
        try {
            var response = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
            if (response.statusCode() >= 400) throw new AssertionError(path + " answered " + response.statusCode());
            return response.body();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** A file, as it is. */
    public Answer put(String path, String mediaType, byte[] file) {
        return sendBody("PUT", path, HttpRequest.BodyPublishers.ofByteArray(file), Map.of("Content-Type", mediaType));
    }

    public Answer send(String method, String path, String body, Map<String, String> headers) {
        var publisher = body == null ? HttpRequest.BodyPublishers.noBody() : HttpRequest.BodyPublishers.ofString(body);
        return sendBody(method, path, publisher, headers);
    }

    private Answer sendBody(String method, String path, HttpRequest.BodyPublisher body, Map<String, String> headers) {
        var request = HttpRequest.newBuilder(URI.create(baseUrl + path)).method(method, body);
        if (token != null) request.header("Authorization", "Bearer " + token);
        headers.forEach(request::header);
        try {
            var response = http.send(request.build(), HttpResponse.BodyHandlers.ofString());
            boolean json =
                    response.headers().firstValue("Content-Type").orElse("").contains("json");
            return new Answer(
                    response.statusCode(), response, json ? JSON.readTree(response.body()) : JSON.createObjectNode());
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
