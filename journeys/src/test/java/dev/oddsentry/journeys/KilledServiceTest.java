package dev.oddsentry.journeys;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.ServiceProcess;
import dev.oddsentry.service.UnwillingMailServer;
import java.io.IOException;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Two real service processes, one of which is killed with SIGKILL at random moments of checks and mailings while sailings keep coming
 * in. Afterwards every sailing was told in exactly one message, and every message was handed over under its one Message-ID.
 */
class KilledServiceTest {
    private static final int KILLS = Integer.getInteger("odd.kills", 8);

    private final RunningService service = RunningService.get();
    private final Random random = new Random(Long.getLong("odd.seed", 20_261_124L));
    private final String database = "records_killed_" + System.nanoTime();
    private final List<ServiceProcess> nodes = new ArrayList<>();

    @TempDir
    Path folder;

    private ServiceProcess start(int mailPort) throws IOException, InterruptedException {
        return ServiceProcess.start(
                service.postgres().jdbcUrl(database),
                folder,
                "-Xmx256m",
                "-XX:+UseSerialGC",
                "-XX:TieredStopAtLevel=1",
                "--spring.datasource.hikari.maximum-pool-size=10",
                "--oddsentry.mail.port=" + mailPort,
                "--oddsentry.mail.time-limit=3s",
                "--oddsentry.work.polling=100ms",
                "--oddsentry.work.heartbeat=1s");
    }

    @Test
    void eachSailingIsInOneMessageWheneverAServiceProcessDies() throws Exception {
        service.execute("postgres", "create database " + database);
        try (var mail = new UnwillingMailServer(UnwillingMailServer.Mood.TAKE)) {
            for (int i = 0; i < 2; i++) nodes.add(start(mail.port()));
            var sailings = watch();
            int told = 0;
            for (int kill = 0; kill < KILLS; kill++) {
                for (int i = 0; i < 3; i++) sailings.late("SK-" + told++, 20);
                Thread.sleep(random.nextInt(1_500));
                var victim = nodes.get(random.nextInt(nodes.size()));
                victim.kill();
                victim.startAgain();
                victim.awaitAnswer();
            }
            int all = told;
            RunningService.await(
                    "all reported", Duration.ofSeconds(60), () -> count("select count(*) from report") == all);
            RunningService.await(
                    "all sent",
                    Duration.ofSeconds(90),
                    () -> count("select count(*) from message_recipient where state <> 'SENT'") == 0);
            assertEverySailingReportedOnce(all, mail);
        } finally {
            for (var node : nodes) node.kill();
        }
    }

    private LateSailings watch() {
        var api = nodes.getFirst().operator();
        service.useFerry(api);
        // The query takes its time, so that kills fall into it too.
        var sailings =
                new LateSailings(service).schedule("schedule: { start: 2026-01-01T00:00, recur: FREQ=SECONDLY }");
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name
                + "\" union all select 'none', 0, '' from (select pg_sleep(0.2)) s"));
        api.push(sailings.rule());
        api.post("/api/rules/" + sailings.name + "/activate", "");
        return sailings;
    }

    private void assertEverySailingReportedOnce(int all, UnwillingMailServer mail) {
        assertThat(count("select count(*) from report")).as("told").isEqualTo(all);
        assertThat(count("select count(distinct finding_id) from report"))
                .as("each once")
                .isEqualTo(all);
        assertThat(count("select count(*) - count(distinct (rule_id, slot)) from rule_check"))
                .as("a slot twice")
                .isZero();
        var distinct = new HashSet<>(mail.taken());
        assertThat((long) distinct.size())
                .as("each message taken, under its one Message-ID")
                .isEqualTo(count("select count(*) from message"));
        System.out.println("killed " + KILLS + " times; " + distinct.size() + " messages, of which "
                + (mail.taken().size() - distinct.size()) + " were taken once more under the same Message-ID");
    }

    private long count(String sql) {
        try (var connection = service.connect(database);
                var statement = connection.createStatement();
                var rows = statement.executeQuery(sql)) {
            rows.next();
            return rows.getLong(1);
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }
}
