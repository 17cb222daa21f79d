package dev.oddsentry.service.previews;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import org.junit.jupiter.api.Test;

/** The messages that a rule would send, shown while it is written; nothing is saved or sent. */
class MailPreviewTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

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
}
