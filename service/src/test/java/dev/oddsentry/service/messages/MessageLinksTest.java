package dev.oddsentry.service.messages;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;

/** What a mail gives its reader beyond rows: links to what it tells of, what was kept, a way out, its thread. */
class MessageLinksTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final HttpApi stranger = HttpApi.stranger(service.baseUrl());
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);
    private final String other = "other-" + sailings.recipient;

    private void active(String delivery) {
        sailings.saved();
        api.push(sailings.rule()
                .replace("delivery: { to: [" + sailings.recipient + "] }", "delivery: { " + delivery + " }"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
    }

    private static String header(Message message, String name) throws MessagingException {
        String[] values = message.getHeader(name);
        return values == null ? "" : values[0];
    }

    private String found(String pattern) {
        var match = Pattern.compile(pattern)
                .matcher(mails.lastText(sailings.recipient).replaceAll("\\s*\\n\\s*", "\n"));
        assertThat(match.find())
                .as(pattern + " in " + mails.lastText(sailings.recipient))
                .isTrue();
        return match.group(1);
    }

    @Test
    void eachFindingLeadsToItsStoryAndTheReportIsKeptAsItWas() {
        sailings.late("SK-1", 60);
        active("to: [" + sailings.recipient + "], attach: [csv, json]");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        String finding = found("/rules/" + sailings.name + "/findings/([0-9a-f-]{36})");
        assertThat(api.get("/api/rules/" + sailings.name + "/explanation?finding=" + finding)
                        .path("identity")
                        .asString())
                .contains("SK-1");
        assertThat(api.send("GET", "/api/rules/" + sailings.name + "/explanation?finding=what", null, Map.of())
                        .status())
                .isEqualTo(404);
        String extract = found("/extracts/([0-9a-f-]{36})");
        var kept = api.get("/api/extracts/" + extract);
        assertThat(kept.path("rule").asString()).isEqualTo(sailings.name);
        assertThat(kept.path("files").size()).isEqualTo(2);
        assertThat(new String(
                        api.bytes("/api/extracts/" + extract + "/files/0"), java.nio.charset.StandardCharsets.UTF_8))
                .contains("SK-1");
        sailings.change("delete from sailing_table");
        assertThat(api.send("GET", "/api/extracts/" + extract + "/rows", null, Map.of())
                        .text())
                .contains("SK-1");
        assertThat(stranger.send("GET", "/api/extracts/" + extract, null, Map.of())
                        .status())
                .isEqualTo(401);
        assertThat(stranger.send("GET", "/api/extracts/" + extract + "/files/0", null, Map.of())
                        .status())
                .isEqualTo(401);
    }

    @Test
    void whatMustNotBeMailedIsKeptBehindTheLink() {
        sailings.late("SK-1", 60);
        active("to: [" + sailings.recipient + "], show: link, attach: [xlsx]");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient))
                .doesNotContain("SK-1")
                .contains("View the rows of this report: ");
        String extract = found("View the rows of this report: \\S+/extracts/([0-9a-f-]{36})");
        assertThat(api.send("GET", "/api/extracts/" + extract + "/rows", null, Map.of())
                        .text())
                .contains("SK-1");
        assertThat(api.get("/api/extracts/" + extract)
                        .path("files")
                        .valueStream()
                        .map(file -> file.path("name").asString().replaceAll(".*\\.", "")))
                .containsExactly("html", "xlsx");
        assertThat(new String(api.bytes("/api/outbox/" + extract + "/source"), java.nio.charset.StandardCharsets.UTF_8))
                .as("nothing of it is in the message")
                .doesNotContain("SK-1")
                .doesNotContain("xlsx");
    }

    @Test
    void aReaderStopsTheMailsByALinkOfTheirOwnAndComesBack() throws MessagingException {
        sailings.late("SK-1", 20);
        active("to: [" + sailings.recipient + ", " + other + "], allow_unsubscribe: true");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        mails.sent(other, 1);
        var mail = service.mailTo(sailings.recipient).getLast();
        assertThat(header(mail, "List-Unsubscribe-Post")).isEqualTo("List-Unsubscribe=One-Click");
        String link = header(mail, "List-Unsubscribe").replaceAll("^<https?://[^/]+|>$", "");
        assertThat(found("Unsubscribe: https?://[^/]+(\\S+)")).isEqualTo(link);
        assertThat(header(service.mailTo(other).getLast(), "List-Unsubscribe")).doesNotContain(link);

        assertThat(stranger.send("GET", link, null, Map.of()).text())
                .contains("Unsubscribe from", sailings.recipient, "<form method=\"post\"");
        assertThat(api.get("/api/rules/" + sailings.name + "/unsubscribed"))
                .as("to look changes nothing")
                .isEmpty();
        var pressed = stranger.send(
                "POST",
                link,
                "List-Unsubscribe=One-Click",
                Map.of("Content-Type", "application/x-www-form-urlencoded"));
        assertThat(pressed.status()).isEqualTo(200);
        assertThat(pressed.text()).contains("You are unsubscribed");
        assertThat(api.get("/api/rules/" + sailings.name + "/unsubscribed")
                        .path(0)
                        .path("address")
                        .asString())
                .isEqualTo(sailings.recipient);

        sailings.late("SK-2", 20);
        api.check(sailings.name);
        mails.sent(other, 2);
        mails.sent(sailings.recipient, 1);
        assertThat(header(service.mailTo(other).getLast(), "To")).doesNotContain("<" + sailings.recipient);
        var recipients = api.get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("recipients");
        assertThat(recipients.toString()).contains("CANCELLED", "The recipient unsubscribed");

        stranger.send("POST", link + "/back", "", Map.of());
        sailings.late("SK-3", 20);
        api.check(sailings.name);
        mails.sent(sailings.recipient, 2);
        assertThat(mails.lastText(sailings.recipient)).contains("SK-3").doesNotContain("SK-2");
    }

    @Test
    void aLinkOfAnotherMailOrReaderDoesNothing() {
        sailings.late("SK-1", 20);
        active("to: [" + sailings.recipient + "], allow_unsubscribe: true");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        String link = found("Unsubscribe: https?://[^/]+(\\S+)");
        String stored = Pattern.compile("/leave/[0-9a-f-]{36}/reader")
                .matcher(api.get("/api/outbox/" + link.split("/")[2])
                        .path("text")
                        .asString())
                .results()
                .findFirst()
                .orElseThrow()
                .group();
        for (String wrong : List.of(
                stored,
                link + "x",
                link.replaceAll("/leave/[^/]+", "/leave/" + java.util.UUID.randomUUID()),
                "/leave/x/y")) {
            assertThat(stranger.send("POST", wrong, "", Map.of()).status())
                    .as(wrong)
                    .isEqualTo(404);
        }
        assertThat(api.get("/api/rules/" + sailings.name + "/unsubscribed")).isEmpty();
    }

    @Test
    void updatesStayUnreportedWhileEveryoneIsUnsubscribed() {
        sailings.late("SK-1", 20);
        active("to: [" + sailings.recipient + "], allow_unsubscribe: true");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        stranger.send("POST", found("Unsubscribe: https?://[^/]+(\\S+)"), "", Map.of());
        sailings.late("SK-2", 20);
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        api.delete("/api/rules/" + sailings.name + "/unsubscribed/" + sailings.recipient);
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        mails.sent(sailings.recipient, 2);
    }

    @Test
    void mailsOfOneMonthAreOneConversation() throws MessagingException {
        sailings.late("SK-1", 20);
        active("to: [" + sailings.recipient + "], thread: month");
        api.check(sailings.name);
        sailings.late("SK-2", 20);
        api.check(sailings.name);
        mails.sent(sailings.recipient, 2);
        var first = service.mailTo(sailings.recipient).getFirst();
        var second = service.mailTo(sailings.recipient).getLast();
        assertThat(header(first, "In-Reply-To"))
                .contains("thread." + sailings.name + ".20")
                .isEqualTo(header(second, "In-Reply-To"));
        assertThat(header(second, "References")).isEqualTo(header(second, "In-Reply-To"));
        assertThat(header(first, "Message-ID")).isNotEqualTo(header(second, "Message-ID"));
    }
}
