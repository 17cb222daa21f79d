package dev.oddsentry.service.messages;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.time.Duration;
import org.junit.jupiter.api.Test;

class HourlyLimitTest {
    @Test
    void updatesBeyondTheHourlyLimitComeTogetherLater() {
        try (var service = RunningService.withItsOwnTime()) {
            HttpApi api = service.api();
            var mails = new Mails(service);
            var sailings = new LateSailings(service).late("SK-1", 20);
            sailings.saved();
            api.push(sailings.rule().replace("delivery: { ", "delivery: { max_per_hour: 2, "));
            api.post("/api/rules/" + sailings.name + "/activate", "");
            api.check(sailings.name);
            sailings.late("SK-2", 20);
            api.check(sailings.name);
            mails.sent(sailings.recipient, 2);
            for (int i = 3; i < 6; i++) {
                sailings.late("SK-" + i, 20);
                assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
            }
            assertThat(api.get("/api/rules/" + sailings.name + "/explanation?key=SK-4")
                            .path("reason")
                            .asString())
                    .contains("its recipients were sent 2 messages within an hour");
            service.pass(Duration.ofHours(2));
            sailings.change("update sailing_table set delay_min = 60 where sailing = 'SK-1'");
            sailings.late("SK-6", 30);
            assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
            mails.sent(sailings.recipient, 3);
            assertThat(mails.lastText(sailings.recipient))
                    .contains("4 new", "SK-3", "SK-4", "SK-5", "SK-6")
                    .doesNotContain("SK-2")
                    .as("what did not begin now says since when it has lasted")
                    .containsPattern("▲ critical, worsened, open since \\w{3} \\d+ \\w+ \\d\\d:\\d\\d   SK-1")
                    .containsPattern("◆ warning, new, open since [^\n]*SK-3")
                    .containsPattern("◆ warning, new   SK-6");
        }
    }
}
