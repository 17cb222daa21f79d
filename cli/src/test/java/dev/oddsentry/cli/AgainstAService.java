package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;

/** A service that answers as a test says, someone who is logged in there, and what was asked of it. */
abstract class AgainstAService {
    private static final JsonMapper JSON = new JsonMapper();

    final Map<String, String> answers = new ConcurrentHashMap<>();
    final Map<String, Integer> statuses = new ConcurrentHashMap<>();
    final List<String> asked = new ArrayList<>();
    HttpServer server;

    @TempDir
    Path folder;

    record Ran(int status, String out, String err) {}

    @BeforeEach
    void start() throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.createContext("/", this::answer);
        server.start();
        System.setProperty("user.home", folder.toString());
        answer("POST /api/tokens", "{\"token\":\"t0\"}");
        answer("GET /api/session", "{\"name\":\"Ines Holm\"}");
        var before = System.in;
        System.setIn(new ByteArrayInputStream("a password\n".getBytes(StandardCharsets.UTF_8)));
        try {
            assertThat(odd("login", "--user", "ines", "--password-stdin").status())
                    .isZero();
        } finally {
            System.setIn(before);
        }
        asked.clear();
    }

    @AfterEach
    void stop() {
        server.stop(0);
    }

    private void answer(HttpExchange exchange) throws IOException {
        String body = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        String call = exchange.getRequestMethod() + " " + exchange.getRequestURI();
        synchronized (asked) {
            asked.add(call + (body.isEmpty() ? "" : " " + body));
        }
        byte[] answer = answers.getOrDefault(call, "{\"detail\":\"no answer to " + call + "\"}")
                .getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "application/json");
        exchange.sendResponseHeaders(answers.containsKey(call) ? statuses.getOrDefault(call, 200) : 404, answer.length);
        exchange.getResponseBody().write(answer);
        exchange.close();
    }

    void refuse(String call, int status, String json) {
        answers.put(call, json);
        statuses.put(call, status);
    }

    void answer(String call, String json) {
        if (!json.startsWith("{") && !json.startsWith("[")) {
            answers.put(call, json);
            return;
        }
        var answer = JSON.readTree(json);
        assertThat(Contract.unknownNames(call, answer)).as(call).isEmpty();
        answers.put(call, JSON.writeValueAsString(Contract.completed(call, answer)));
    }

    Ran odd(String... arguments) {
        var out = new StringWriter();
        var err = new StringWriter();
        var all = new ArrayList<>(List.of(arguments));
        all.addAll(List.of("--url", "http://127.0.0.1:" + server.getAddress().getPort()));
        int status = Odd.run(new PrintWriter(out, true), new PrintWriter(err, true), all.toArray(String[]::new));
        return new Ran(status, out.toString(), err.toString());
    }
}
