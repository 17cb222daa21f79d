package dev.oddsentry.service.messages;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Which rows the files of a message hold: the updates, all open findings, or the whole report. */
class FileRowsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings =
            new LateSailings(service).late("SK-1", 60).late("SK-2", 5).late("SK-3", 20);
    private final Mails mails = new Mails(service);

    private void active(String delivery) {
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\" order by sailing"));
        api.push(sailings.rule().replace("] }\n", "], " + delivery + " }\n"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
    }

    private JsonNode report() {
        var newest =
                api.get("/api/outbox?rule=" + sailings.name).path("messages").path(0);
        return api.get("/api/extracts/" + newest.path("id").asString());
    }

    private String file(int place) {
        String id = report().path("message").asString();
        return new String(api.bytes("/api/extracts/" + id + "/files/" + place), StandardCharsets.UTF_8);
    }

    @Test
    void updatesAllOpenAndTheWholeReportAreEachAFileOfItsOwn() {
        active("attach: [{ format: csv, rows: updates }, { format: csv }, { format: csv, rows: all },"
                + " { format: json, rows: all, file: 'whole {{date}}' }]");
        api.check(sailings.name);
        sailings.late("SK-4", 30);
        assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(1);
        mails.sent(sailings.recipient, 2);
        assertThat(file(0)).isEqualTo("\ufeffSeverity,Update,Sailing,Late by (min),Reason\r\nwarning,new,SK-4,30,\r\n");
        assertThat(file(1).lines().skip(1))
                .containsExactly("warning,new,SK-4,30,", "critical,,SK-1,60,", "warning,,SK-3,20,");
        assertThat(file(2).lines().skip(1))
                .containsExactly("critical,,SK-1,60,", ",,SK-2,5,", "warning,,SK-3,20,", "warning,new,SK-4,30,");
        var rows = JsonMapper.shared().readTree(file(3)).path("rows");
        assertThat(rows).hasSize(4);
        assertThat(rows.get(1).path("severity").isNull()).isTrue();
        assertThat(rows.get(1).path("marked")).isEmpty();
        assertThat(rows.get(3).path("marked").toString()).contains("delay_min");
        assertThat(report().path("files").findValuesAsString("name"))
                .as("each under a name of its own")
                .doesNotHaveDuplicates()
                .last()
                .asString()
                .startsWith("whole ");
        assertThat(mails.lastText(sailings.recipient))
                .contains("The findings of this report are attached: ", "All open findings are attached: ")
                .contains("All rows are attached, with the exceptions marked: ");
    }

    @Test
    void messageShowsTheWholeReportBelowItsUpdates() {
        active("layout: { whole_report: true }");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient).replace("\r\n", "\n"))
                .contains("== All rows ==\n\n▲ critical, new   SK-1")
                .contains("\nSK-2, 5 min, Reason missing\n");
    }

    @Test
    void partOfASplitHoldsItsRowsAloneUnderANameOfItsOwn() {
        String one = "one-" + sailings.recipient;
        sailings.late("SK-1", 2);
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        api.push(sailings.rule()
                .replace("key: [sailing]", "key: [sailing, delay_min]")
                .replace(
                        "] }\n",
                        "], split_by: sailing, split_to: { SK-1: [" + one
                                + "] }, attach: [{ format: csv, rows: all }] }\n"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.check(sailings.name);
        mails.sent(one, 1);
        var own = api.get("/api/outbox?rule=" + sailings.name).path("messages").values().stream()
                .filter(message -> message.toString().contains(one))
                .findFirst()
                .orElseThrow()
                .path("id")
                .asString();
        var file = api.get("/api/extracts/" + own)
                .path("files")
                .path(0)
                .path("name")
                .asString();
        assertThat(file).startsWith(sailings.name + "-2").endsWith("-SK-1.csv");
        assertThat(new String(api.bytes("/api/extracts/" + own + "/files/0"), StandardCharsets.UTF_8)
                        .lines()
                        .skip(1))
                .containsExactlyInAnyOrder("critical,new,SK-1,60,", ",,SK-1,2,");
    }

    @Test
    void wholeReportOfGroupsHasAllGroups() {
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        api.push("""
                kind: rule
                name: %s
                owner: Traffic reporting
                query: %s
                per: [sailing]
                measures: { worst: max(delay_min) }
                exceptions: worst > 30
                delivery: { to: [%s], attach: [{ format: csv, rows: all }] }
                """.formatted(sailings.name, sailings.name, sailings.recipient));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(file(0).lines().skip(1)).containsExactlyInAnyOrder("warning,new,SK-1,60", ",,SK-2,5", ",,SK-3,20");
    }
}
