package dev.oddsentry.service.evaluation;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A window may begin at the slot of the last good check. */
class LastCheckTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service)
            .memory("memory: { key: [sailing] }")
            .schedule("schedule: { start: 2026-01-05T00:00, recur: FREQ=YEARLY }");
    private final String path = "/api/rules/" + sailings.name;

    private void query(String since) {
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name
                        + "\" where logged >= :since and logged < :until")
                + "parameters: { since: { type: instant, default: " + since
                + " }, until: { type: instant, default: now } }\n");
    }

    private void late(String sailing, String logged) {
        sailings.change("insert into sailing_table values ('" + sailing + "', 20, null, " + logged + ")");
    }

    private String since(JsonNode check) {
        return check.path("parameters").path("since").asString();
    }

    @Test
    void eachCheckLooksAtWhatCameSinceTheOneBefore() {
        sailings.change("alter table sailing_table add logged timestamptz");
        query("last check - 1 minute");
        var saved = api.push(sailings.rule());
        assertThat(saved.path("warnings")).isEmpty();
        api.post(path + "/activate", "");
        late("SK-1", "'2026-01-04 22:00Z'");
        late("SK-2", "now() - interval '2 days'");
        var first = api.check(sailings.name);
        assertThat(since(first)).as("from where it starts").contains("2026-01-04 23:59");
        assertThat(first.path("exceptions").asInt()).isEqualTo(1);

        late("SK-3", "now()");
        var seen = api.post(path + "/preview", "");
        assertThat(seen.path("wouldReport").asInt()).isEqualTo(1);
        var second = api.check(sailings.name);
        assertThat(second.path("updates").asInt()).isEqualTo(1);
        assertThat(second.path("rowsRead").asInt())
                .as("with those of the minute before")
                .isLessThanOrEqualTo(2);
        assertThat(api.get(path + "/findings?state=AGED_OUT").path("total").asInt())
                .isEqualTo(1);

        service.execute("ferry", "alter table \"" + sailings.name + "\" rename to \"" + sailings.name + "-away\"");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FAILED");
        service.execute("ferry", "alter table \"" + sailings.name + "-away\" rename to \"" + sailings.name + "\"");
        var third = api.check(sailings.name);
        assertThat(third.path("state").asString()).isEqualTo("QUIET");
        assertThat(since(third)).as("a failed one does not count").isEqualTo(minuteBefore(second));
    }

    private static String minuteBefore(JsonNode check) {
        var local = Instant.parse(check.path("slot").asString())
                .atZone(java.time.ZoneId.of("Europe/Oslo"))
                .minusMinutes(1);
        return dev.oddsentry.core.value.CellText.of(local.toInstant(), local.getZone());
    }

    @Test
    void withoutAMarginOrAStartItIsSaid() {
        sailings.change("alter table sailing_table add logged timestamptz");
        query("last check");
        assertThat(api.push(sailings.rule()).path("warnings").toString()).contains("last check - 10 minutes");
        assertThat(api.pushAnswer(sailings.schedule("").rule()).text()).contains("write under schedule: start:");
        assertThat(api.send("POST", path + "/back-tests", "{\"days\": 800}", Map.of("Content-Type", "application/json"))
                        .status())
                .isEqualTo(202);
    }
}
