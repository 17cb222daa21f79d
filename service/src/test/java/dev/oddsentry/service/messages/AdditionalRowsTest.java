package dev.oddsentry.service.messages;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Rows of other queries than the one that fired, which go with the mail. */
class AdditionalRowsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings =
            new LateSailings(service).late("SK-1", 60).late("SK-2", 5);
    private final Mails mails = new Mails(service);
    private final String all = "all-" + sailings.name;

    private String rule(String delivery) {
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        api.push("kind: query\nname: " + all + "\ntitle: Every sailing\nsource: ferry\n"
                + "parameters: { least: { type: number, default: 0 } }\n"
                + "sql: 'select sailing, delay_min, 0.5 as share from \"" + sailings.name
                + "\" where delay_min >= :least order by sailing'\n"
                + "columns: { sailing: { label: Sailing }, delay_min: { label: Late by, unit: min } }\n");
        return sailings.rule().replace("] }\n", "], " + delivery + " }\n");
    }

    private String file(int place) {
        String id = api.get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("id")
                .asString();
        return new String(api.bytes("/api/extracts/" + id + "/files/" + place), StandardCharsets.UTF_8);
    }

    @Test
    void anotherQuerysRowsGoWithTheMailAndStandInIt() {
        api.push("kind: layout\nname: by-delay-" + all
                + "\ncolumns: [sailing, { column: delay_min, label: Delay }]\nsort: [delay_min desc]\n");
        api.push(rule("attach: [], also_send: [{ query: " + all + ", layout: by-delay-" + all
                + ", attach: [csv], rows_in_mail: 1 }]"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(sailings.recipient).replace("\r\n", "\n"))
                .contains("== Every sailing: 2 ==\n\nSK-1, 60 min\n1 more", ".csv. Owner: ");
        assertThat(file(0))
                .isEqualTo("\ufeffsailing,delay_min\r\nSK-1,60\r\nSK-2,5\r\n"
                        .replace("sailing,delay_min", "Sailing,Delay (min)"));
        String html = api.send(
                        "GET",
                        "/api/outbox/"
                                + api.get("/api/outbox?rule=" + sailings.name)
                                        .path("messages")
                                        .path(0)
                                        .path("id")
                                        .asString()
                                + "/html",
                        null,
                        Map.of())
                .text();
        assertThat(html).contains("Every sailing: 2", "SK-1, 60 min", "1 more");
    }

    @Test
    void theRulesValuesArePassedOnAndNoAudienceSeesAnothersRows() {
        String one = "one-" + sailings.recipient;
        String two = "two-" + sailings.recipient;
        sailings.late("SK-2", 90).late("SK-1", 1);
        api.push(rule("split_by: sailing, split_to: { SK-1: [" + one + "], SK-2: [" + two + "] }, also_send: [{ query: "
                        + all + ", attach: [json] }]")
                .replace("memory: { key: [sailing]", "memory: { key: [sailing, delay_min]"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        mails.sent(one, 1);
        mails.sent(two, 1);
        var messages = api.get("/api/outbox?rule=" + sailings.name).path("messages");
        for (var message : messages) {
            boolean first = message.toString().contains(one);
            String json = new String(
                    api.bytes("/api/extracts/" + message.path("id").asString() + "/files/1"), StandardCharsets.UTF_8);
            assertThat(json).contains(first ? "SK-1" : "SK-2").doesNotContain(first ? "SK-2" : "SK-1");
        }
    }

    @Test
    void aQueryThatCannotBeReadFailsTheCheckAndNothingIsReported() {
        api.push(rule("also_send: [{ query: " + all + " }]"));
        api.post("/api/rules/" + sailings.name + "/activate", "");
        api.push("kind: query\nname: " + all + "\nsource: ferry\nsql: select 1 / 0 as sailing\n");
        var failed = api.check(sailings.name);
        assertThat(failed.path("state").asString()).isEqualTo("FAILED");
        assertThat(failed.path("reason").asString())
                .contains("The query " + all + ", whose rows go with the mail, cannot be read: ", "division by zero");
        api.push("kind: query\nname: " + all + "\nsource: ferry\nsql: select 1 as sailing\n");
        assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "also_send: [{ query: no-such-query }] | there is no query",
                "also_send: [{ query: ALL, layout: none-such }] | there is no layout",
                "also_send: [{ layout: none-such }] | query",
                "also_send: [{ query: ALL, rows_in_mail: 900 }] | is not a whole number from 0 to 200",
                "split_by: reason, also_send: [{ query: ALL }] | returns no column reason",
                "also_send: [{ query: ALL, attach: [{ format: csv, file: '{{nothing}}' }] }] | there is no field",
            })
    void whatCannotBeSentIsRefusedWithItsPlace(String delivery, String words) {
        var refused = api.pushAnswer(rule(delivery.replace("ALL", all)));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains(words);
    }
}
