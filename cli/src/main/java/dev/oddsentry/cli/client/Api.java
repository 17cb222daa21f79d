package dev.oddsentry.cli.client;

import dev.oddsentry.contract.Problem;
import java.io.IOException;
import java.net.ConnectException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Calls the service's API. Every refusal comes as an {@link ApiException}, a missing service as a {@link NotReachedException}. */
public final class Api {
    private static final JsonMapper JSON = new JsonMapper();
    private static final Duration LONGEST_ANSWER = Duration.ofMinutes(10);

    private final Login login;
    private final HttpClient http =
            HttpClient.newBuilder().connectTimeout(Duration.ofSeconds(10)).build();

    public Api(Login login) {
        this.login = login;
    }

    /** One part of a path, so that a name with odd letters stays one part. */
    public static String part(String name) {
        return URLEncoder.encode(name, StandardCharsets.UTF_8).replace("+", "%20");
    }

    /** Those that are not null, as the query string of a path; empty where there is none. */
    public static String query(Map<String, @Nullable String> values) {
        String query = values.entrySet().stream()
                .filter(each -> each.getValue() != null)
                .map(each -> part(each.getKey()) + "=" + part(each.getValue()))
                .collect(Collectors.joining("&"));
        return query.isEmpty() ? "" : "?" + query;
    }

    public <T> T get(String path, Class<T> answer) {
        return as(get(path), answer);
    }

    public <T> List<T> list(String path, Class<T> each) {
        return listOf(get(path), each);
    }

    public JsonNode get(String path) {
        return call(request(path).GET());
    }

    private <T> T as(JsonNode answer, Class<T> type) {
        try {
            return JSON.treeToValue(answer, type);
        } catch (JacksonException other) {
            throw otherVersion();
        }
    }

    private <T> List<T> listOf(JsonNode answer, Class<T> each) {
        try {
            return convertList(answer, each);
        } catch (JacksonException other) {
            throw otherVersion();
        }
    }

    private NotReachedException otherVersion() {
        return new NotReachedException("The service at " + login.url()
                + " answers in another form than this command line knows. Use the command line of its version.");
    }

    /** A text as it is, such as a document. */
    public String text(String path) {
        try {
            var response = http.send(
                    request(path)
                            .setHeader("Accept", "application/yaml, application/problem+json")
                            .GET()
                            .build(),
                    HttpResponse.BodyHandlers.ofByteArray());
            if (response.statusCode() >= 400) throw refused(response.statusCode(), read(response));
            return new String(response.body(), StandardCharsets.UTF_8);
        } catch (ConnectException e) {
            throw new NotReachedException(
                    "Cannot reach the service at " + login.url() + ". Check that it runs, or set --url or ODD_URL.");
        } catch (IOException e) {
            throw new NotReachedException("Connection to " + login.url() + " lost: " + e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new NotReachedException("Interrupted.");
        }
    }

    /** Where the answer is of no interest. */
    public void post(String path, @Nullable Object body) {
        call(posting(path, body));
    }

    public <T> T post(String path, @Nullable Object body, Class<T> answer) {
        return as(call(posting(path, body)), answer);
    }

    public <T> List<T> postForList(String path, @Nullable Object body, Class<T> each) {
        return listOf(call(posting(path, body)), each);
    }

    public <T> T post(String path, @Nullable Object body, Map<String, String> headers, Class<T> answer) {
        var request = posting(path, body);
        headers.forEach(request::header);
        return as(call(request), answer);
    }

    private HttpRequest.Builder posting(String path, @Nullable Object body) {
        return request(path).POST(bodyOf(body)).header("Content-Type", "application/json");
    }

    /** Where the answer is of no interest. */
    public void put(String path, Object body) {
        call(putting(path, body));
    }

    public <T> T put(String path, Object body, Class<T> answer) {
        return as(call(putting(path, body)), answer);
    }

    public <T> List<T> putForList(String path, Object body, Class<T> each) {
        return listOf(call(putting(path, body)), each);
    }

    private HttpRequest.Builder putting(String path, Object body) {
        return request(path).PUT(bodyOf(body)).header("Content-Type", "application/json");
    }

    public <T> T postText(String path, String text, String contentType, Class<T> answer) {
        return as(
                call(request(path)
                        .POST(HttpRequest.BodyPublishers.ofString(text))
                        .header("Content-Type", contentType)),
                answer);
    }

    public <T> T putText(String path, String text, Class<T> answer) {
        return as(
                call(request(path)
                        .PUT(HttpRequest.BodyPublishers.ofString(text))
                        .header("Content-Type", "application/yaml")),
                answer);
    }

    /** A file, as it is. */
    public void putFile(String path, String contentType, byte[] file) {
        call(request(path).PUT(HttpRequest.BodyPublishers.ofByteArray(file)).header("Content-Type", contentType));
    }

    /** Saves an answer to a file, which is there whole or not at all. */
    public void download(String path, Path file) {
        Path part = file.resolveSibling(file.getFileName() + ".part");
        try {
            var response = http.send(
                    request(path).setHeader("Accept", "*/*").GET().build(), HttpResponse.BodyHandlers.ofFile(part));
            if (response.statusCode() >= 400) {
                byte[] body = Files.readAllBytes(part);
                throw refused(response.statusCode(), JSON.readTree(body));
            }
            Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
        } catch (ConnectException e) {
            throw new NotReachedException(
                    "Cannot reach the service at " + login.url() + ". Check that it runs, or set --url or ODD_URL.");
        } catch (IOException e) {
            throw new NotReachedException("The file " + file + " could not be written: " + e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new NotReachedException("Interrupted.");
        } finally {
            deleteIfThere(part);
        }
    }

    private static void deleteIfThere(Path file) {
        try {
            Files.deleteIfExists(file);
        } catch (IOException left) {
            // It is named .part, so nobody takes it for the whole.
        }
    }

    public void delete(String path) {
        call(request(path).DELETE());
    }

    public <T> T delete(String path, Class<T> answer) {
        return as(call(request(path).DELETE()), answer);
    }

    public <T> List<T> deleteForList(String path, Class<T> each) {
        return listOf(call(request(path).DELETE()), each);
    }

    private static HttpRequest.BodyPublisher bodyOf(@Nullable Object body) {
        return body == null
                ? HttpRequest.BodyPublishers.noBody()
                : HttpRequest.BodyPublishers.ofByteArray(JSON.writeValueAsBytes(body));
    }

    private HttpRequest.Builder request(String path) {
        var request =
                HttpRequest.newBuilder(address(path)).timeout(LONGEST_ANSWER).header("Accept", "application/json");
        if (login.token() != null) request.header("Authorization", "Bearer " + login.token());
        return request;
    }

    private URI address(String path) {
        try {
            return URI.create(login.url() + path);
        } catch (IllegalArgumentException e) {
            throw new NotReachedException(
                    "\"" + login.url() + "\" is not an address of a service. Example: http://127.0.0.1:8480");
        }
    }

    private JsonNode call(HttpRequest.Builder request) {
        try {
            var response = http.send(request.build(), HttpResponse.BodyHandlers.ofByteArray());
            JsonNode body = read(response);
            if (response.statusCode() >= 400) throw refused(response.statusCode(), body);
            return body;
        } catch (ConnectException e) {
            throw new NotReachedException(
                    "Cannot reach the service at " + login.url() + ". Check that it runs, or set --url or ODD_URL.");
        } catch (IOException e) {
            throw new NotReachedException("Connection to " + login.url() + " lost: " + e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new NotReachedException("Interrupted.");
        }
    }

    /** What stands between may refuse too, in its own way. */
    private static ApiException refused(int status, JsonNode body) {
        String detail = body.path("detail").asString("");
        List<Problem> problems;
        try {
            problems = body.path("problems").isArray() ? convertList(body.path("problems"), Problem.class) : List.of();
        } catch (JacksonException notOurs) {
            problems = List.of();
        }
        return new ApiException(status, detail.isEmpty() ? null : detail, problems);
    }

    private static <T> List<T> convertList(JsonNode array, Class<T> each) {
        return JSON.treeToValue(array, JSON.getTypeFactory().constructCollectionType(List.class, each));
    }

    private JsonNode read(HttpResponse<byte[]> response) {
        if (response.body().length == 0) return JSON.createObjectNode();
        try {
            return JSON.readTree(response.body());
        } catch (JacksonException notJson) {
            throw new NotReachedException(
                    login.url() + " is not an Odd Sentry service (status " + response.statusCode() + ").");
        }
    }
}
