package dev.oddsentry.service.reporting;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A severity from which a message is sent: what is less severe is found, remembered and waits for the next message. */
class SendFromTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);

    private JsonNode check() {
        return api.check(sailings.name);
    }

    private void active(String delivery) {
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        api.push(sailings.rule().replace(sailings.recipient + "] }\n", sailings.recipient + "], " + delivery + " }\n"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
    }

    @Test
    void lessSevereUpdateWaitsAndGoesWithTheNextMessage() {
        sailings.late("SK-1", 20);
        active("send_from: critical");
        assertThat(check().path("state").asString()).isEqualTo("QUIET");
        var found = api.get("/api/rules/" + sailings.name + "/findings").path("findings");
        assertThat(found).hasSize(1);
        var explained = api.get("/api/rules/" + sailings.name + "/explanation?finding="
                + found.get(0).path("id").asString());
        assertThat(explained.toString())
                .contains(
                        "It waits because it is warning, and this rule sends a message only for critical (send_from).");
        assertThat(check().path("updates").asInt()).as("it still waits").isZero();
        sailings.late("SK-2", 60);
        assertThat(check().path("updates").asInt()).isEqualTo(2);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient)).contains("SK-1", "SK-2");
        assertThat(check().path("updates").asInt()).as("each is reported once").isZero();
    }

    @Test
    void findingThatWorsensToTheSeverityIsSent() {
        sailings.late("SK-1", 20);
        active("send_from: critical");
        check();
        sailings.change("update sailing_table set delay_min = 50");
        assertThat(check().path("updates").asInt()).isEqualTo(1);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.subjects(sailings.recipient).getFirst()).startsWith("1 critical: ");
    }

    @Test
    void fullReportIsSentOnlyIfSomethingIsSevereEnough() {
        sailings.memory("memory: { mode: full, key: [sailing] }").late("SK-1", 20);
        active("send_from: critical");
        assertThat(check().path("state").asString()).isEqualTo("QUIET");
        sailings.late("SK-2", 60);
        assertThat(check().path("updates").asInt()).isEqualTo(2);
    }

    @Test
    void eachAudienceOfASplitHasItsOwnMeasure() {
        String one = "one-" + sailings.recipient;
        sailings.late("SK-1", 20).late("SK-2", 60);
        active("send_from: critical, split_by: sailing, split_to: { SK-1: [" + one + "] }");
        check();
        mails.sent(sailings.recipient, 1);
        assertThat(service.mailTo(one)).isEmpty();
    }
}
