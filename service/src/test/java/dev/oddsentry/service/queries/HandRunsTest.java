package dev.oddsentry.service.queries;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RawHttp;
import dev.oddsentry.service.RunningService;
import java.io.IOException;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** What people run by hand: it has connections of its own, can be stopped, and ends when nobody waits for it any more. */
class HandRunsTest {
    private static final String RUNNING =
            "select count(*) from pg_stat_activity where state = 'active' and query like '%s' and pid <> pg_backend_pid()";

    private final RunningService service = RunningService.get();
    private final RawHttp http = new RawHttp(service.baseUrl());

    private static Map<String, Object> body(String sql) {
        return Map.of(
                "document",
                new JsonMapper()
                        .writeValueAsString(Map.of("kind", "query", "name", "by-hand", "source", "ferry", "sql", sql)));
    }

    private long running(String mark) {
        return service.count("ferry", RUNNING.formatted("%" + mark + "%"));
    }

    private CompletableFuture<HttpApi.Answer> start(String mark) {
        return CompletableFuture.supplyAsync(() -> service.api()
                .postAnswer("/api/query-runs", body("select pg_sleep(40)::text as a, '" + mark + "' as mark")));
    }

    private void stop(List<CompletableFuture<HttpApi.Answer>> runs) {
        for (var run : service.api().get("/api/query-runs"))
            service.api().send("DELETE", "/api/query-runs/" + run.path("id").asString(), null, Map.of());
        runs.forEach(CompletableFuture::join);
    }

    @Test
    void checkDoesNotWaitForQueriesRunByHand() {
        var sailings = new LateSailings(service).late("SK-1", 20).active();
        var runs = new ArrayList<CompletableFuture<HttpApi.Answer>>();
        for (int i = 0; i < 4; i++) runs.add(start("starve"));
        RunningService.await("a query that runs", () -> running("starve") >= 1);
        long began = System.nanoTime();
        var check = service.api().check(sailings.name);
        assertThat(check.path("state").asString()).isNotEqualTo("FAILED");
        assertThat(Duration.ofNanos(System.nanoTime() - began)).isLessThan(Duration.ofSeconds(4));
        stop(runs);
    }

    @Test
    void stoppedQueryEndsInItsSourceAndSaysWhoStoppedIt() {
        var run = start("stopped");
        RunningService.await("the query", () -> running("stopped") == 1);
        var listed = service.api().get("/api/query-runs");
        assertThat(listed.path(0).path("login").asString()).isEqualTo("operator");
        assertThat(listed.path(0).path("query").asString()).isEqualTo("by-hand");
        assertThat(service.api()
                        .send(
                                "DELETE",
                                "/api/query-runs/" + listed.path(0).path("id").asString(),
                                null,
                                Map.of())
                        .status())
                .isEqualTo(204);
        var answer = run.join();
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.body().path("detail").asString()).contains("stopped by operator");
        RunningService.await("the end of the query", () -> running("stopped") == 0);
    }

    @Test
    void queryEndsWhenTheClientIsGone() throws IOException {
        String token = service.api()
                .post("/api/tokens", Map.of("login", "operator", "password", RunningService.OPERATOR_PASSWORD))
                .path("token")
                .asString();
        String body = new JsonMapper().writeValueAsString(body("select pg_sleep(40)::text as a, 'gone' as mark"));
        try (Socket socket = http.open()) {
            socket.getOutputStream()
                    .write(("POST /api/query-runs HTTP/1.1\r\nHost: x\r\nAuthorization: Bearer " + token
                                    + "\r\nContent-Type: application/json\r\nContent-Length: " + body.length()
                                    + "\r\n\r\n" + body)
                            .getBytes(StandardCharsets.UTF_8));
            RunningService.await("the query", () -> running("gone") == 1);
        }
        RunningService.await("the end of the query", Duration.ofSeconds(3), () -> running("gone") == 0);
    }

    @Test
    void savingTheSourceLetsRunningQueriesGoOn() {
        var run = CompletableFuture.supplyAsync(() -> service.api()
                .postAnswer("/api/query-runs", body("select pg_sleep(2)::text as a, 'through a save' as mark")));
        RunningService.await("the query", () -> running("through a save") == 1);
        service.api()
                .put(
                        "/api/sources/ferry",
                        Map.of(
                                "jdbcUrl",
                                service.postgres().jdbcUrl("ferry"),
                                "username",
                                "ferry_reader",
                                "maxRows",
                                1000,
                                "timeLimitSeconds",
                                4));
        var answer = run.join();
        assertThat(answer.status()).as(answer.text()).isEqualTo(200);
    }

    @Test
    void auditKeepsTheTextThatWasRun() {
        service.api().postAnswer("/api/query-runs", body("select 'kept in the audit' as a"));
        assertThat(
                        service.count(
                                "records",
                                "select count(*) from audit_event where act = 'RUN_QUERY' and detail like '%kept in the audit%'"))
                .isEqualTo(1);
    }

    @Test
    void textThatLeavesItsTransactionIsRefusedAndTheNextQueryReadsTheRealTable() {
        service.ferry("create table \"sailing of all\" (n int); insert into \"sailing of all\" values (7)");
        for (String attack : List.of(
                "select 1 as a -- x\r; commit; create temp table \"sailing of all\" as select 9 as n",
                "select E'a\\'' as a; commit; create temp table \"sailing of all\" as select 9 as n --'",
                "select 1 as a$b$; commit; create temp table \"sailing of all\" as select 9 as n --$b$",
                "/* /* */ select 1 -- */ commit")) {
            var answer = service.api().postAnswer("/api/query-runs", body(attack));
            assertThat(answer.status()).as(attack).isEqualTo(422);
            var next = service.api().post("/api/query-runs", body("select n from \"sailing of all\""));
            assertThat(next.path("rows").toString()).isEqualTo("[[\"7\"]]");
        }
    }

    @Test
    void queryOnALockedTableEndsWithinTheTimeLimit() throws SQLException {
        service.ferry("create table \"locked by hand\" (n int)");
        try (var holder = service.connect("ferry")) {
            holder.setAutoCommit(false);
            holder.createStatement().execute("lock table \"locked by hand\" in access exclusive mode");
            var answer = service.api().postAnswer("/api/query-runs", body("select n from \"locked by hand\""));
            assertThat(answer.status()).isEqualTo(422);
            holder.rollback();
        }
        assertThat(service.api()
                        .post("/api/query-runs", body("select n from \"locked by hand\""))
                        .path("rowsRead")
                        .asInt())
                .isZero();
    }

    @Test
    void rowsOfAMegabyteAreRefusedInWords() {
        var answer = service.api()
                .postAnswer(
                        "/api/query-runs",
                        body("select n, repeat('x', 1000000) as payload from generate_series(1, 1000) n"));
        assertThat(answer.status()).isEqualTo(422);
        assertThat(answer.body().path("detail").asString()).contains("too large", "left(column, 1000)");
    }

    @Test
    void oneRowThatIsTooLargeIsRefusedWithItsColumn() {
        var answer = service.api().postAnswer("/api/query-runs", body("select 1 as n, repeat('x', 60000) as payload"));
        assertThat(answer.body().path("detail").asString())
                .contains("\"payload\" has 60000 characters", "left(payload, 1000)");
    }

    @Test
    void manyWideRowsAreReadWithinTheLimitOfMemory() {
        var answer = service.api()
                .post(
                        "/api/query-runs",
                        body(
                                "select n, repeat('x', case when n < 300 then 10 else 45000 end) as payload from generate_series(1, 900) n"));
        assertThat(answer.path("rowsRead").asInt()).isEqualTo(900);
        assertThat(answer.toString().length()).isLessThan(2_000_000);
    }
}
