package dev.oddsentry.service.outbox;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** What people do with mail that is queued or sent: hold, release, throw away, send again, report again, search. */
class MessageActionsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);

    private JsonNode outbox(String query) {
        return api.get("/api/outbox?rule=" + sailings.name + query).path("messages");
    }

    private int hold() {
        return api.post("/api/holds", Map.of("rule", sailings.name, "reason", "the timetable is wrong"))
                .valueStream()
                .filter(each -> each.path("rule").asString("").equals(sailings.name))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asInt();
    }

    private String latest() {
        return outbox("").path(0).path("id").asString();
    }

    @Test
    void heldMailWaitsCanBeReadAndIsReleasedOrThrownAway() throws InterruptedException {
        sailings.late("SK-1", 20).active();
        int hold = hold();
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        service.senderHasPutOff("records", latest());
        assertThat(service.mailTo(sailings.recipient)).isEmpty();
        var message = outbox("").path(0);
        assertThat(message.path("held").asBoolean()).isTrue();
        assertThat(api.get("/api/outbox/" + latest()).path("text").asString()).contains("SK-1");
        var standing = api.get("/api/holds")
                .valueStream()
                .filter(each -> each.path("id").asInt() == hold)
                .findFirst();
        assertThat(standing.orElseThrow().path("messages").asInt()).isEqualTo(1);
        assertThat(api.post("/api/holds/" + hold + "/end", "").path("messages").asInt())
                .isEqualTo(1);
        mails.sent(sailings.recipient, 1);
        assertThat(api.postAnswer("/api/holds/" + hold + "/end", "").status()).isEqualTo(404);

        int second = hold();
        sailings.late("SK-2", 20);
        api.check(sailings.name);
        assertThat(api.post("/api/holds/" + second + "/end?discard=true", "")
                        .path("messages")
                        .asInt())
                .isEqualTo(1);
        assertThat(outbox("&state=CANCELLED").size()).isEqualTo(1);
        assertThat(api.check(sailings.name).path("state").asString())
                .as("after stopped it stays reported")
                .isEqualTo("QUIET");
        assertThat(api.post("/api/outbox/" + latest() + "/report-again", "")
                        .path("count")
                        .asInt())
                .isEqualTo(1);
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        mails.sent(sailings.recipient, 2);
        assertThat(mails.lastText(sailings.recipient)).contains("SK-2").doesNotContain("SK-1");
    }

    @Test
    void aMailIsSentAgainMarkedAndUnderAnIdOfItsOwn() {
        String second = "second-" + sailings.recipient;
        sailings.late("SK-1", 20).active();
        api.push(sailings.rule().replace("to: [" + sailings.recipient, "to: [" + sailings.recipient + ", " + second));
        api.check(sailings.name);
        mails.sent(second, 1);
        String id = latest();
        assertThat(api.postAnswer("/api/outbox/" + id + "/cancel", "").text())
                .contains("Nobody is queued for this message");
        assertThat(api.postAnswer("/api/outbox/" + id + "/resend", Map.of("to", List.of("x@y.example")))
                        .text())
                .contains("It was for");
        api.post("/api/outbox/" + id + "/resend", Map.of("to", List.of(second.toUpperCase(java.util.Locale.ROOT))));
        mails.sent(second, 2);
        assertThat(mails.subjects(second).getLast()).startsWith("Repeat: ");
        mails.sent(sailings.recipient, 1);
        var page = api.get("/api/outbox/" + latest());
        assertThat(page.path("message").path("repeat").asBoolean()).isTrue();
        assertThat(page.path("messageId").asString())
                .isNotEqualTo(api.get("/api/outbox/" + id).path("messageId").asString());
        assertThat(page.path("files").size()).isEqualTo(1);
        assertThat(outbox("&q=" + second).size()).isEqualTo(2);
        assertThat(outbox("&q=repeat").size()).isEqualTo(1);
        assertThat(outbox("&q=nobody-has-this").size()).isZero();
    }

    @Test
    void aPreviewGoesToWhoAsksAndLeavesNoTrace() {
        sailings.late("SK-1", 20).active();
        String me = "operator@localhost";
        int before = service.mailTo(me).size();
        assertThat(api.post("/api/rules/" + sailings.name + "/preview-to-me", "")
                        .path("messages")
                        .asInt())
                .isEqualTo(1);
        mails.sent(me, before + 1);
        assertThat(mails.subjects(me).getLast()).contains("Preview: Late sailings");
        assertThat(service.mailTo(sailings.recipient)).isEmpty();
        assertThat(outbox("").path(0).path("preview").asBoolean()).isTrue();
        assertThat(api.postAnswer("/api/outbox/" + latest() + "/report-again", "")
                        .text())
                .contains("reported nothing");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        mails.sent(sailings.recipient, 1);
    }
}
