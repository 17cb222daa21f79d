package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

/** Commands about messages, holds and recipients, as people read what they print. */
class MailCommandsTest extends AgainstAService {
    private static List<String> lines(String text) {
        return text.lines().map(String::stripTrailing).toList();
    }

    @Test
    void messageIsShownWithWhereEachRecipientStands() {
        answer("GET /api/outbox/m1", """
                {"message": {"subject": "2 critical: Late sailings", "createdAt": "2026-11-24T04:40:01Z", "held": true, "recipients": [
                    {"address": "ines.holm@skerryline.example", "state": "SENT", "detail": null},
                    {"address": "per.aune@skerryline.example", "state": "REJECTED", "detail": "550 nobody of that name"}]},
                 "files": [{"name": "late-sailings.csv", "mediaType": "text/csv", "bytes": 812}],
                 "reported": {"total": 2, "findings": []}, "text": "2 findings\\n\\n"}
                """);
        assertThat(lines(odd("message", "m1").out()))
                .contains(
                        "Subject: 2 critical: Late sailings",
                        "To: ines.holm@skerryline.example, sent",
                        "To: per.aune@skerryline.example, rejected: 550 nobody of that name",
                        "File: late-sailings.csv",
                        "Reported: 2 findings",
                        "2 findings");
        answer("POST /api/outbox/m1/cancel", "{\"count\":1}");
        assertThat(odd("message", "m1", "--cancel").out())
                .contains("Delivery cancelled for 1 recipient. The findings stay reported.");
        answer("POST /api/outbox/m1/confirm", "{\"count\":2}");
        assertThat(odd("message", "m1", "--arrived").out()).contains("Confirmed for 2 recipients.");
        answer("POST /api/outbox/m1/report-again", "{\"count\":3}");
        assertThat(odd("message", "m1", "--report-again").out()).contains("The next check reports 3 findings again.");
        answer("POST /api/outbox/m1/resend", "{\"count\":1,\"message\":\"m2\"}");
        assertThat(odd("message", "m1", "--resend", "--to", "per.aune@skerryline.example")
                        .out())
                .contains("Resent as message m2.");
        assertThat(asked).contains("POST /api/outbox/m1/resend {\"to\":[\"per.aune@skerryline.example\"]}");
    }

    @Test
    void attachmentsAreSavedUnderTheirNamesAlone() {
        answer("GET /api/extracts/m1", "{\"files\":[{\"name\":\"../../late.csv\"}]}");
        answers.put("GET /api/extracts/m1/files/0", "a,b");
        assertThat(odd("message", "m1", "--files", folder.resolve("files").toString())
                        .out())
                .contains("Saved " + folder.resolve("files/late.csv"));
        assertThat(folder.resolve("files/late.csv")).hasContent("a,b");
    }

    @Test
    void holdsAreListedSetAndEnded() {
        answer("GET /api/holds", """
                [{"id": 1, "source": null, "rule": "late", "reason": "the timetable is wrong", "by": "Ines Holm", "at": "2026-11-24T04:40:00Z", "messages": 2},
                 {"id": 2, "source": "ferry", "rule": null, "reason": "a move", "by": null, "at": "2026-11-24T04:40:00Z", "messages": 0},
                 {"id": 3, "source": null, "rule": null, "reason": "a restore", "by": null, "at": "2026-11-24T04:40:00Z", "messages": 0}]
                """);
        assertThat(odd("hold-mail").out())
                .containsPattern("1 +rule late +the timetable is wrong +Ines Holm")
                .containsPattern("2 +source ferry +a move +the service")
                .containsPattern("3 +all mail +a restore");
        answer("POST /api/holds/1/end?discard=true", "{\"messages\":2}");
        assertThat(odd("hold-mail", "--discard", "1").status()).isZero();
        assertThat(asked).contains("POST /api/holds/1/end?discard=true");
    }

    @Test
    void recipientsAreListedAndOneIsShown() {
        answer("GET /api/recipients", """
                [{"address": "ines.holm@skerryline.example", "rules": 3, "messages": 12, "lastAt": "2026-11-24T04:40:00Z", "blocked": false},
                 {"address": "per.aune@skerryline.example", "rules": 1, "messages": 0, "lastAt": null, "blocked": true}]
                """);
        assertThat(odd("recipients").out())
                .containsPattern("ines.holm@skerryline.example +3 +12 .* yes")
                .containsPattern("per.aune@skerryline.example +1 +0 .*blocked");
        answer("GET /api/recipients/per.aune%40skerryline.example", """
                {"blocked": "Blocked since Tuesday.", "gets": [{"kind": "rule", "name": "late", "title": "Late sailings", "state": "ACTIVE",
                    "how": ["to", "team Crew"], "messages": 4, "lastAt": null, "unsubscribedAt": null,
                    "choice": {"address": "per.aune@skerryline.example", "collect": "weekly", "filesByLink": true, "chosenAt": "2026-11-20T04:40:00Z"}}]}
                """);
        var one = odd("recipients", "per.aune@skerryline.example");
        assertThat(one.err()).contains("Nothing is sent to this address. Blocked since Tuesday.");
        assertThat(one.out())
                .containsPattern(
                        "rule late +Late sailings +active +to; team Crew +4 .*collected weekly; files as links");
    }

    @Test
    void whatRecipientsChoseIsListedAndEnded() {
        answer("GET /api/round-ups/week/reader-choices", """
                [{"address": "per.aune@skerryline.example", "pausedUntil": "2026-12-09T06:00:00Z", "collect": "daily", "filesByLink": false,
                  "nextCollection": "2026-12-09T06:00:00Z", "chosenAt": "2026-11-20T04:40:00Z"}]
                """);
        assertThat(odd("reader-choices", "week", "--round-up").out())
                .containsPattern("per.aune@skerryline.example +paused until Wed 9 Dec")
                .doesNotContain("daily");
        answer("DELETE /api/rules/late/reader-choices/per.aune%40skerryline.example", "[]");
        var ended = odd("reader-choices", "late", "--end", "per.aune@skerryline.example");
        assertThat(ended.out() + ended.err()).contains("Recipients of late get each message as it is sent.");
    }

    @Test
    void unsubscribedAndLanguagesAreListedAndChanged() {
        answer("GET /api/rules/late/unsubscribed", """
                [{"address": "per.aune@skerryline.example", "unsubscribedAt": "2026-11-20T04:40:00Z", "resubscribedAt": null, "resubscribedBy": null},
                 {"address": "siv.tangen@skerryline.example", "unsubscribedAt": "2026-11-20T04:40:00Z",
                  "resubscribedAt": "2026-11-21T04:40:00Z", "resubscribedBy": null}]
                """);
        assertThat(odd("unsubscribed", "late").out()).containsPattern("siv.tangen@skerryline.example .* the recipient");
        answer("DELETE /api/rules/late/unsubscribed/per.aune%40skerryline.example", "[]");
        var back = odd("unsubscribed", "late", "--resubscribe", "per.aune@skerryline.example");
        assertThat(back.out() + back.err()).contains("Nobody has unsubscribed from late.");
        answer(
                "PUT /api/languages/jens.brandt%40skerryline.example",
                "[{\"address\":\"jens.brandt@skerryline.example\",\"language\":\"DE\",\"by\":\"Ines Holm\",\"at\":\"2026-11-24T04:40:00Z\"}]");
        assertThat(odd("languages", "--set", "jens.brandt@skerryline.example", "--language", "de")
                        .out())
                .containsPattern("jens.brandt@skerryline.example +de +Ines Holm");
        assertThat(odd("languages", "--set", "jens.brandt@skerryline.example", "--language", "rule")
                        .status())
                .isZero();
        assertThat(asked).contains("PUT /api/languages/jens.brandt%40skerryline.example {\"language\":null}");
    }
}
