package dev.oddsentry.service.previews;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.util.HashMap;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The messages that a rule would send, shown while it is written; nothing is saved or sent. */
class MailPreviewTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);

    @Test
    void previewShowsASampleIfNothingWouldBeReported() {
        String draft = sailings.saved();
        assertThat(api.postYaml("/api/mail-preview", draft).body().path("messages"))
                .as("no rows")
                .isEmpty();
        for (int i = 0; i < 8; i++) sailings.late("SK-" + i, 4);
        var ofRows = api.postYaml("/api/mail-preview", draft).body();
        assertThat(ofRows.path("sample").asString()).isEqualTo("ROWS");
        assertThat(ofRows.path("messages").path(0).path("subject").asString()).startsWith("5 ");
        sailings.late("SK-9", 60);
        String patient = draft.replace("memory: { key: [sailing]", "memory: { open_after: 3 checks, key: [sailing]");
        assertThat(patient).contains("open_after: 3 checks");
        var pending = api.postYaml("/api/mail-preview", patient).body();
        assertThat(pending.path("sample").asString()).isEqualTo("PENDING");
        assertThat(pending.path("messages").path(0).path("text").asString())
                .contains("SK-9")
                .doesNotContain("SK-1");
        assertThat(api.postYaml("/api/mail-preview", draft)
                        .body()
                        .path("sample")
                        .isNull())
                .isTrue();
    }

    @Test
    void previewShowsTheMessageOfAnUnsavedRule() {
        sailings.late("SK-1", 60);
        sailings.active();
        api.check(sailings.name);
        String draft = sailings.rule().replaceAll("(?s)delivery: \\{.*", """
                delivery:
                  to: [a@skerryline.example]
                  subject: "{{updates}} of {{owner}}"
                  attach: [xlsx]
                """);
        var seen = api.postYaml("/api/mail-preview", draft).body();
        var mail = seen.path("messages").path(0);
        assertThat(mail.path("subject").asString()).isEqualTo("1 of Traffic reporting");
        assertThat(mail.path("to").toString()).isEqualTo("[\"a@skerryline.example\"]");
        assertThat(mail.path("text").asString()).contains("SK-1");
        assertThat(mail.path("html").asString()).contains(">SK-1</a>");
        assertThat(mail.path("files").toString()).contains(".xlsx");
        assertThat(seen.path("fields").toString()).contains("\"open\"", "\"moved\"");
        assertThat(seen.path("columns").toString()).contains("\"sailing\"", "\"severity\"");
        assertThat(api.get("/api/outbox?rule=" + sailings.name).path("messages"))
                .as("only what its check had sent")
                .hasSize(1);
        assertThat(api.postYaml("/api/mail-preview", draft.replace("{{updates}}", "{{newz}}"))
                        .text())
                .contains("there is no field \\\"newz\\\"", "delivery.subject");
    }

    @Test
    void personSendsThemselvesWhatAnUnsavedRuleWouldSend() {
        String draft = sailings.saved();
        assertThat(api.postYaml("/api/mail-preview/to-me", draft).status())
                .as("nothing to show")
                .isEqualTo(409);
        sailings.late("SK-1", 4);
        String subject = "Preview: Late sailings of " + sailings.name;
        assertThat(api.postYaml("/api/mail-preview/to-me", draft)
                        .body()
                        .path("messages")
                        .asInt())
                .isEqualTo(1);
        RunningService.await(
                "the message to the operator",
                () -> mails.subjects("operator@localhost").stream().anyMatch(each -> each.contains(subject)));
        assertThat(service.mailTo(sailings.recipient)).as("nobody else").isEmpty();
        assertThat(api.send("GET", "/api/rules/" + sailings.name, null, Map.of())
                        .status())
                .as("it is still not saved")
                .isEqualTo(404);
        var summary = api.get("/api/outbox")
                .path("messages")
                .valueStream()
                .filter(each -> each.path("subject").asString().contains(subject))
                .findFirst()
                .orElseThrow();
        assertThat(summary.path("preview").asBoolean()).isTrue();
    }

    @Test
    void fieldsOfTheTextsAreShownWithWhatTheySayNow() {
        sailings.late("SK-1", 60).late("SK-2", 31).late("SK-3", 2);
        sailings.schedule("schedule: { start: 2026-01-05T05:40, recur: FREQ=DAILY }");
        String draft = sailings.saved().replaceAll("(?s)delivery: \\{.*", """
                delivery:
                  to: [a@skerryline.example]
                  subject: "{{count}} late, {{sum_delay_min}} min in all, at most {{highest_delay_min | 0.0}}"
                  opening: "Next: {{next | time}}. {{#rows}}{{sailing}} {{delay_min | 0.00}} {{/rows}}"
                  attach: [{ format: csv, file: "late {{date | weekday}}" }]
                """);
        var seen = api.postYaml("/api/mail-preview", draft).body();
        var mail = seen.path("messages").path(0);
        assertThat(mail.path("subject").asString()).isEqualTo("2 late, 91 min in all, at most 60.0");
        assertThat(mail.path("text").asString()).contains("Next: 05:40. SK-1 60.00 SK-2 31.00");
        assertThat(mail.path("files").path(0).asString()).matches("late \\w+day.csv");
        var fields = new HashMap<String, String>();
        seen.path("fields")
                .forEach(each -> fields.put(
                        each.path("name").asString(), each.path("value").asString()));
        assertThat(fields)
                .containsEntry("count", "2")
                .containsEntry("critical", "1")
                .containsEntry("sum_delay_min", "91")
                .containsEntry("average_delay_min", "45.5")
                .containsEntry("lowest_delay_min", "31")
                .containsEntry("next | time", "05:40")
                .containsKeys("date | weekday", "sum_delay_min | #,##0", "title", "because")
                .doesNotContainKeys("rows", "count | #,##0", "sum_sailing");
        assertThat(seen.path("fileFields").findValuesAsString("name"))
                .contains("rule", "date", "date | month", "split")
                .doesNotContain("count", "next");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "{{title | date}}; the field title is a text, which is not written as d MMMM yyyy",
                "{{next | #,##0}}; the field next is a timestamp, which is not written as #,##0",
                "{{sum_sailing}}; there is no field",
                "{{threshold_unknown}}; there is no field",
                "{{date | tomorrow}}; is not a format. Use date, weekday, month, time",
            })
    void formatsThatDoNotFitAreRefusedWithTheirPlace(String subject, String words) {
        var refused = api.pushAnswer(sailings.saved()
                .replaceAll(
                        "(?s)delivery: \\{.*",
                        "delivery: { to: [a@skerryline.example], subject: \"" + subject + "\" }\n"));
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains(words, "delivery.subject");
    }
}
