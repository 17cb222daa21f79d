package dev.oddsentry.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.ServiceProcess;
import java.nio.file.Path;
import java.time.Duration;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A service that is shut down hands back the check that it cannot finish, and the next one to start finishes it. */
class ShutDownTest {
    private final RunningService service = RunningService.get();
    private final String database = "records_shut_down_" + System.nanoTime();

    @TempDir
    Path folder;

    @Test
    void aCheckThatRunsAtAShutDownIsFinishedAfterTheNextStart() throws Exception {
        service.execute("postgres", "create database " + database);
        var node = ServiceProcess.start(
                service.postgres().jdbcUrl(database),
                folder,
                "-Xmx256m",
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "--oddsentry.work.heartbeat=1s",
                "--oddsentry.work.stop-within=2s");
        try (var people = Executors.newVirtualThreadPerTaskExecutor()) {
            var api = node.operator();
            service.useFerry(api);
            var sailings = new LateSailings(service).late("SK-1", 20);
            api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name
                    + "\" union all select 'none', 0, '' from (select pg_sleep(8)) s"));
            api.push(sailings.rule());
            api.post("/api/rules/" + sailings.name + "/activate", "");
            String checks = "/api/rules/" + sailings.name + "/checks";
            people.submit(() -> api.check(sailings.name));
            RunningService.await(
                    "running", () -> !api.get(checks).path("checks").isEmpty());

            assertThat(node.end(Duration.ofSeconds(30))).as("it ends in time").isTrue();
            node.startAgain();
            node.awaitAnswer();
            var again = node.operator();
            RunningService.await(
                    "finished",
                    Duration.ofSeconds(60),
                    () -> again.get(checks)
                            .path("checks")
                            .path(0)
                            .path("state")
                            .asString("")
                            .equals("FIRED"));
            var check = again.get(checks).path("checks").path(0);
            assertThat(again.get(checks).path("checks")).as("the same check").hasSize(1);
            assertThat(check.path("attempt").asInt()).isGreaterThan(1);
            assertThat(check.path("updates").asInt()).isEqualTo(1);
        } finally {
            node.kill();
        }
    }
}
