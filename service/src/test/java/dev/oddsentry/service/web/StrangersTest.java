package dev.oddsentry.service.web;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.RawHttp;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** What somebody without a log-in can send: it costs the service little, and everybody else is answered. */
class StrangersTest {
    private final RunningService service = RunningService.get();
    private final RawHttp http = new RawHttp(service.baseUrl());
    private final HttpApi nobody = HttpApi.stranger(service.baseUrl());

    private static String head(String path, long length) {
        return "POST " + path + " HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nContent-Length: " + length
                + "\r\n\r\n";
    }

    @Test
    void slowBodiesKeepNobodyWaitingAndAreCutOff() throws IOException {
        var sockets = new ArrayList<Socket>();
        try {
            for (int i = 0; i < 300; i++) {
                var socket = http.open();
                socket.getOutputStream().write((head("/api/tokens", 1000) + "{").getBytes(StandardCharsets.US_ASCII));
                sockets.add(socket);
            }
            long began = System.nanoTime();
            for (int i = 0; i < 5; i++)
                assertThat(service.api().get("/api/rules").isArray()).isTrue();
            assertThat(Duration.ofNanos(System.nanoTime() - began)).isLessThan(Duration.ofSeconds(3));
            assertThat(new String(sockets.getFirst().getInputStream().readNBytes(12), StandardCharsets.US_ASCII))
                    .isEqualTo("HTTP/1.1 408");
        } finally {
            for (var socket : sockets) socket.close();
        }
    }

    @Test
    void largeBodyIsRefusedBeforeItIsRead() throws IOException {
        for (String path : List.of("/api/tokens", "/api/session", "/api/definitions")) {
            try (var socket = http.open()) {
                socket.getOutputStream().write(head(path, 18_000_000).getBytes(StandardCharsets.US_ASCII));
                assertThat(new String(socket.getInputStream().readNBytes(12), StandardCharsets.US_ASCII))
                        .as(path)
                        .isEqualTo("HTTP/1.1 413");
            }
        }
        assertThat(http.send(head("/api/tokens", 20_000), new byte[20_000]).status())
                .isEqualTo(413);
    }

    @Test
    void chunkedBodyIsLimitedToo() throws IOException {
        String head =
                "POST /api/tokens HTTP/1.1\r\nHost: x\r\nContent-Type: application/json\r\nTransfer-Encoding: chunked\r\n\r\n";
        var answer = http.send(
                head, ("8000\r\n" + " ".repeat(0x8000) + "\r\n0\r\n\r\n").getBytes(StandardCharsets.US_ASCII));
        assertThat(answer.status()).isEqualTo(413);
        assertThat(answer.isProblem()).isTrue();
    }

    private int guess(String login, String password) {
        return nobody.postAnswer("/api/tokens", Map.of("login", login, "password", password))
                .status();
    }

    private void addPerson(String login) {
        service.api()
                .post(
                        "/api/people",
                        Map.of(
                                "login",
                                login,
                                "name",
                                "Siv",
                                "email",
                                "siv@skerryline.example",
                                "password",
                                "four-calm-otters",
                                "role",
                                "ANALYST"));
    }

    @Test
    void parallelGuessesCountAndThePersonGetsInAfterwards() {
        String login = "siv-" + System.nanoTime();
        addPerson(login);
        List<Integer> answers;
        try (var threads = Executors.newVirtualThreadPerTaskExecutor()) {
            var guesses = IntStream.range(0, 60)
                    .mapToObj(i -> CompletableFuture.supplyAsync(() -> guess(login, "wrong-guess-" + i), threads))
                    .toList();
            answers = guesses.stream().map(CompletableFuture::join).toList();
        }
        assertThat(answers).allMatch(status -> status == 401 || status == 429);
        assertThat(answers.stream().filter(status -> status == 401).count()).isBetween(1L, 15L);
        RunningService.await(
                "the person's own log-in", Duration.ofSeconds(8), () -> guess(login, "four-calm-otters") == 201);
    }

    @Test
    void tenWrongGuessesDoNotLockThePersonOut() {
        String login = "per-" + System.nanoTime();
        addPerson(login);
        for (int i = 0; i < 10; i++)
            assertThat(guess(login, "wrong-guess-" + i)).isEqualTo(401);
        assertThat(guess(login, "four-calm-otters")).isEqualTo(201);
    }

    @Test
    void logInsAndRefusedOnesAreInTheAudit() {
        String login = "ola-" + System.nanoTime();
        addPerson(login);
        guess(login, "wrong-guess");
        guess(login, "four-calm-otters");
        assertThat(service.count(
                        "records",
                        "select count(*) from audit_event where act = 'LOG_IN_REFUSED' and subject = '" + login + "'"))
                .isEqualTo(1);
        assertThat(service.count(
                        "records",
                        "select count(*) from audit_event where act = 'GET_TOKEN' and subject = '" + login
                                + "' and detail like 'from 127.%'"))
                .isEqualTo(1);
        assertThat(
                        service.count(
                                "records",
                                "select count(*) from audit_event where detail like '%wrong-guess%' or subject like '%wrong-guess%'"))
                .isZero();
    }

    @Test
    void passwordOfAnyLengthWorksAndWeakOnesAreRefusedInWords() {
        for (String weak : List.of("aaaaaaaaaa", "abababababab", "1234567890", "short-1")) {
            var answer = service.api()
                    .postAnswer(
                            "/api/people",
                            Map.of(
                                    "login",
                                    "weak-1",
                                    "name",
                                    "x",
                                    "email",
                                    "x@skerryline.example",
                                    "password",
                                    weak,
                                    "role",
                                    "ANALYST"));
            assertThat(answer.status()).as(weak).isEqualTo(422);
        }
        String login = "long-" + System.nanoTime();
        String password = "ærfugl på skjæret, ".repeat(8);
        service.api()
                .post(
                        "/api/people",
                        Map.of(
                                "login",
                                login,
                                "name",
                                "x",
                                "email",
                                "x@skerryline.example",
                                "password",
                                password,
                                "role",
                                "ANALYST"));
        assertThat(guess(login, password)).isEqualTo(201);
        assertThat(guess(login, password.substring(0, password.length() - 1))).isEqualTo(401);
    }

    @Test
    void healthTellsItsStateAndMetricsNeedTheirOwnRight() {
        assertThat(nobody.send("GET", "/actuator/health", null, Map.of()).text())
                .contains("UP")
                .doesNotContain("PostgreSQL");
        assertThat(nobody.send("GET", "/actuator/prometheus", null, Map.of()).status())
                .isEqualTo(401);
        var collector = new HttpApi(service.baseUrl(), "metrics-token-of-the-tests");
        assertThat(collector.send("GET", "/actuator/prometheus", null, Map.of()).status())
                .isEqualTo(200);
        assertThat(collector.send("GET", "/api/rules", null, Map.of()).status()).isEqualTo(403);
    }
}
