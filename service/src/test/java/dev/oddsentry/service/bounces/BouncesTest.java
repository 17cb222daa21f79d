package dev.oddsentry.service.bounces;

import static org.assertj.core.api.Assertions.assertThat;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;

/** What comes back to the mailbox of undeliverable mail: reports are noted, answers dropped, people's words left. */
class BouncesTest {
    private static final String MAILBOX = "bounces@skerryline.example";

    private final RunningService service = RunningService.get();
    private final GreenMail mailbox =
            new GreenMail(new ServerSetup(0, "127.0.0.1", ServerSetup.PROTOCOL_IMAP).dynamicPort());
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private ConfigurableApplicationContext node;
    private HttpApi api;

    @BeforeEach
    void start() {
        mailbox.start();
        mailbox.setUser(MAILBOX, "odd", "secret");
        String database = "records_" + System.nanoTime();
        service.execute("postgres", "create database " + database);
        node = service.startNode(
                database,
                service.postgres().jdbcUrl(database),
                "--oddsentry.mail.bounces.address=" + MAILBOX,
                "--oddsentry.mail.bounces.host=127.0.0.1",
                "--oddsentry.mail.bounces.port=" + mailbox.getImap().getPort(),
                "--oddsentry.mail.bounces.username=odd",
                "--oddsentry.mail.bounces.secret=secret",
                "--oddsentry.mail.bounces.look-every=200ms");
        api = HttpApi.loggedIn(RunningService.baseUrl(node), "operator", RunningService.OPERATOR_PASSWORD);
        service.useFerry(api);
        api.put(
                "/api/teams/Traffic reporting".replace(" ", "%20"),
                Map.of("addresses", List.of("team-" + sailings.recipient)));
        sailings.late("SK-1", 20);
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        api.push(sailings.rule());
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
    }

    @AfterEach
    void stop() {
        node.close();
        mailbox.stop();
    }

    private void comesBack(String mail) throws MessagingException {
        var message = new MimeMessage(
                Session.getInstance(new Properties()),
                new ByteArrayInputStream(mail.replace("\n", "\r\n").getBytes(StandardCharsets.UTF_8)));
        mailbox.getUserManager().getUser("odd").deliver(message);
    }

    private int left() {
        return mailbox.getReceivedMessagesForDomain("skerryline.example").length;
    }

    private JsonNode sent() {
        return api.get("/api/outbox?rule=" + sailings.name).path("messages").path(0);
    }

    private static String report(String to, String recipient, String action, String messageId) {
        return """
                From: MAILER-DAEMON@mx.example
                To: %s
                Subject: Undelivered Mail Returned to Sender
                Auto-Submitted: auto-replied
                MIME-Version: 1.0
                Content-Type: multipart/report; report-type=delivery-status; boundary="b"

                --b
                Content-Type: text/plain

                It could not be delivered.
                --b
                Content-Type: message/delivery-status

                Reporting-MTA: dns; mx.example

                Final-Recipient: rfc822; %s
                Action: %s
                Status: 5.1.1
                Diagnostic-Code: smtp; 550 5.1.1 nobody of that name

                --b
                Content-Type: text/rfc822-headers

                Message-ID: %s
                Subject: whatever

                --b--
                """.formatted(to, recipient, action, messageId);
    }

    private String returnPath() throws MessagingException {
        Message mail = service.mailTo(sailings.recipient).getLast();
        return mail.getHeader("Return-Path")[0].replaceAll("[<>]", "");
    }

    private void awaitRefused() {
        RunningService.await(
                "the report",
                () -> sent().path("recipients").path(0).path("state").asString().equals("REJECTED"));
    }

    @Test
    void aReportMarksTheRecipientHoldsTheAddressAndTellsTheOwnerOnce() throws MessagingException {
        assertThat(returnPath()).matches("bounces\\+[0-9a-v]{42}@skerryline\\.example");
        comesBack(report(returnPath(), "someone.else@elsewhere.example", "failed", "<unknown@elsewhere.example>"));
        awaitRefused();
        assertThat(sent().path("recipients").path(0).path("detail").asString())
                .isEqualTo("It came back: 550 5.1.1 nobody of that name");
        assertThat(api.get("/api/blocked-addresses").path(0).path("address").asString())
                .isEqualTo(sailings.recipient);
        mails.sent("team-" + sailings.recipient, 1);
        assertThat(mails.subjects("team-" + sailings.recipient))
                .containsExactly("Blocked address: " + sailings.recipient);
        comesBack(report(returnPath(), sailings.recipient, "failed", ""));
        RunningService.await("an empty mailbox", () -> left() == 0);
        mails.sent("team-" + sailings.recipient, 1);
        assertThat(api.check(sailings.name).path("state").asString())
                .as("nobody can be told")
                .isEqualTo("QUIET");
        api.delete("/api/blocked-addresses/" + sailings.recipient);
        assertThat(api.check(sailings.name).path("state").asString())
                .as("nobody had got it")
                .isEqualTo("FIRED");
        mails.sent(sailings.recipient, 2);
    }

    @Test
    void reportOfDelayChangesNothing() throws MessagingException {
        comesBack(report(returnPath(), sailings.recipient, "delayed", "<x@y.example>"));
        RunningService.await("an empty mailbox", () -> left() == 0);
        assertThat(sent().path("recipients").path(0).path("state").asString()).isEqualTo("SENT");
    }

    @Test
    void forgedReportsBarNobody() throws MessagingException {
        String messageId = service.mailTo(sailings.recipient).getLast().getHeader("Message-ID")[0];
        String own = returnPath();
        String otherSignature = own.substring(0, own.indexOf('@') - 1)
                + (own.charAt(own.indexOf('@') - 1) == 'a' ? 'b' : 'a') + "@skerryline.example";
        String number = sent().path("id").asString();
        for (String to : List.of(
                MAILBOX,
                "bounces+" + number + "@skerryline.example",
                otherSignature,
                "bounces+" + "0".repeat(42) + "@skerryline.example"))
            comesBack(report(to, sailings.recipient, "failed", messageId));
        RunningService.await("an empty mailbox", () -> left() == 0);
        assertThat(sent().path("recipients").path(0).path("state").asString()).isEqualTo("SENT");
        assertThat(api.get("/api/blocked-addresses")).isEmpty();
        comesBack(report(own.toUpperCase(Locale.ROOT), "x@y.example", "failed", messageId));
        awaitRefused();
    }

    @Test
    void whatAnswersByItselfIsDroppedAndWhatAPersonWroteStays() throws MessagingException {
        comesBack("From: a@b.example\nTo: " + MAILBOX
                + "\nSubject: Out of office\nAuto-Submitted: auto-replied\n\nI am away.\n");
        comesBack("From: a@b.example\nTo: " + MAILBOX + "\nSubject: Please call me\n\nThanks.\n");
        comesBack("From: a@b.example\nTo: " + MAILBOX
                + "\nSubject: broken\nContent-Type: multipart/report; boundary=\"x\"\n\nno part at all\n");
        RunningService.await("the answer to be dropped", () -> left() <= 2);
        assertThat(Arrays.stream(mailbox.getReceivedMessages()).map(BouncesTest::subject))
                .contains("Please call me");
        assertThat(api.get("/api/blocked-addresses")).isEmpty();
        assertThat(sent().path("recipients").path(0).path("state").asString()).isEqualTo("SENT");
        assertThat(service.mailTo("a@b.example")).as("nothing is ever answered").isEmpty();
    }

    private static String subject(MimeMessage mail) {
        try {
            return mail.getSubject();
        } catch (MessagingException e) {
            throw new IllegalStateException(e);
        }
    }
}
