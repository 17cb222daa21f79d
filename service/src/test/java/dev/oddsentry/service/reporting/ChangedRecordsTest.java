package dev.oddsentry.service.reporting;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import org.junit.jupiter.api.Test;

/** Records of a rule without a condition, of which some change. */
class ChangedRecordsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings =
            new LateSailings(service).memory("memory: { key: [sailing], report: [new, returned, changed] }");

    private String rule() {
        return sailings.rule().replaceFirst("exceptions: .*\n", "").replaceFirst("severity: .*\n", "");
    }

    @Test
    void columnsThatAreSentAreWatchedWhereThereIsNoCondition() {
        for (int i = 0; i < 10; i++) sailings.late("SK-" + i, i);
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        api.push(rule());
        api.post("/api/rules/" + sailings.name + "/activate", "");
        assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(10);
        sailings.change("update sailing_table set reason = 'fog' where sailing in ('SK-3', 'SK-7')");
        var check = api.check(sailings.name);
        assertThat(check.path("state").asString()).isEqualTo("FIRED");
        assertThat(check.path("updates").asInt()).isEqualTo(2);
        var mails = new Mails(service);
        mails.sent(sailings.recipient, 2);
        assertThat(mails.lastText(sailings.recipient)).contains("fog", "(was missing)");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
    }

    @Test
    void toReportChangedWhileNothingCanChangeIsRefused() {
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        String keysAlone = rule().replace("delivery: { to:", "delivery: { layout: { columns: [sailing] }, to:");
        assertThat(api.pushAnswer(keysAlone).text()).contains("no column is watched that can change");
        assertThat(api.pushAnswer(keysAlone.replace("key: [sailing],", "key: [sailing], watch: [reason],"))
                        .status())
                .isLessThan(300);
    }
}
