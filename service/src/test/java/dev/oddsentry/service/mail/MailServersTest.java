package dev.oddsentry.service.mail;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.DebianMailServer;
import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import dev.oddsentry.service.config.Settings.Mail;
import dev.oddsentry.service.config.Settings.MailLogIn;
import dev.oddsentry.service.config.Settings.MailSecurity;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.util.unit.DataSize;

/** A real mail server with TLS and a log-in; and what is said where the connection fails. */
class MailServersTest {
    private static final String READER = "ines.holm@skerryline.example";

    @TempDir
    static Path folder;

    private static DebianMailServer server;

    @BeforeAll
    static void start() throws IOException, InterruptedException {
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
        server = new DebianMailServer(folder);
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    private static Mail settings(
            String host, int port, MailSecurity security, @Nullable String secret, boolean trusts) {
        return new Mail(
                host,
                port,
                "odd@skerryline.example",
                "Odd Sentry",
                Duration.ofSeconds(3),
                Duration.ofSeconds(1),
                Duration.ofHours(1),
                DataSize.ofMegabytes(1),
                security,
                secret == null ? null : DebianMailServer.USER,
                MailLogIn.PASSWORD,
                secret,
                null,
                trusts ? server.authority() : null,
                List.of(),
                List.of(),
                List.of(),
                null,
                Duration.ofHours(1),
                null,
                null);
    }

    private static MailTest.MailServerTest tried(Mail settings) {
        return new MailTest(SmtpServer.inOrder(settings, 8), settings)
                .tried(READER)
                .getFirst();
    }

    @Test
    void saysInPlainWordsWhatIsWrong() {
        int port = server.port();
        assertThat(tried(settings("localhost", port, MailSecurity.STARTTLS, DebianMailServer.PASSWORD, true)))
                .isEqualTo(new MailTest.MailServerTest(
                        "localhost:" + port,
                        true,
                        "It answers with TLS (STARTTLS), logged in as odd, and takes mail to " + READER + "."));
        assertThat(tried(settings("localhost", port, MailSecurity.STARTTLS, "wrong", true))
                        .detail())
                .startsWith("It does not accept the log-in as odd: ")
                .doesNotContain("wrong");
        assertThat(tried(settings("localhost", port, MailSecurity.STARTTLS, null, false))
                        .detail())
                .contains("an authority that is not trusted here");
        assertThat(tried(settings("127.0.0.1", port, MailSecurity.STARTTLS, null, true))
                        .detail())
                .startsWith("Its certificate is not for 127.0.0.1: ");
        assertThat(tried(settings("localhost", port, MailSecurity.TLS, null, true))
                        .detail())
                .startsWith("It speaks no TLS there: ");
        assertThat(tried(settings("localhost", 1, MailSecurity.NONE, null, true))
                        .detail())
                .isEqualTo("Nobody listens there.");
        assertThat(tried(settings("no-such-host.invalid", 25, MailSecurity.NONE, null, true))
                        .detail())
                .isEqualTo("There is no host of that name.");
    }

    @Test
    void aRealServerTakesRelaysAndStoresTheMailAndTheNextInOrderIsTried() throws IOException {
        var service = RunningService.get();
        String database = "records_" + System.nanoTime();
        service.execute("postgres", "create database " + database);
        Path secret = folder.resolve("secret");
        Files.writeString(secret, DebianMailServer.PASSWORD + "\n");
        try (var node = service.startNode(
                database,
                service.postgres().jdbcUrl(database),
                "--oddsentry.mail.host=localhost",
                "--oddsentry.mail.port=1",
                "--oddsentry.mail.others=localhost:" + server.port(),
                "--oddsentry.mail.security=starttls",
                "--oddsentry.mail.username=" + DebianMailServer.USER,
                "--oddsentry.mail.secret-file=" + secret,
                "--oddsentry.mail.ca-file=" + server.authority())) {
            var api = HttpApi.loggedIn(RunningService.baseUrl(node), "operator", RunningService.OPERATOR_PASSWORD);
            service.useFerry(api);
            var sailings = new LateSailings(service).late("SK-1 Måkehamn", 20);
            api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
            api.push(sailings.rule());
            api.post("/api/rules/" + sailings.name + "/activate", "");
            for (int i = 2; i < 5; i++) {
                api.check(sailings.name);
                sailings.late("SK-" + i, 20);
            }
            RunningService.await("all stored", Duration.ofSeconds(40), () -> storedFor(sailings.recipient) == 3);
            // The server stores a message before its answer has come back and is kept.
            RunningService.await(
                    "the server's answer",
                    () -> api.get("/api/outbox")
                            .path("messages")
                            .path(0)
                            .path("recipients")
                            .path(0)
                            .path("detail")
                            .asString()
                            .contains("OK id="));
            assertThat(api.post("/api/mail/test", "").toString())
                    .contains(
                            "Nobody listens there.",
                            "It answers with TLS (STARTTLS), logged in as odd, and takes mail to ")
                    .doesNotContain(DebianMailServer.PASSWORD);
        }
    }

    private static long storedFor(String recipient) {
        try {
            return server.stored().stream()
                    .filter(each -> each.contains(recipient))
                    .count();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }
}
