package dev.oddsentry.service.reporting;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.Mails;
import dev.oddsentry.service.RunningService;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** A rule that sends its rows as they are and remembers nothing. */
class PlainReportsTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);
    private final Mails mails = new Mails(service);

    private String rule(String delivery) {
        return """
                kind: rule
                name: %s
                title: Sailings of %s
                owner: Traffic reporting
                query: %s
                memory: { mode: plain }
                delivery: { to: [%s], attach: [csv]%s }
                """.formatted(sailings.name, sailings.name, sailings.name, sailings.recipient, delivery);
    }

    private void active(String rule) {
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\" order by sailing"));
        api.push(rule);
        api.post("/api/rules/" + sailings.name + "/activate", "");
    }

    private JsonNode findings() {
        return api.get("/api/rules/" + sailings.name + "/findings").path("findings");
    }

    private String lastFile() {
        String id = api.get("/api/outbox?rule=" + sailings.name)
                .path("messages")
                .path(0)
                .path("id")
                .asString();
        return new String(api.bytes("/api/extracts/" + id + "/files/0"), StandardCharsets.UTF_8);
    }

    @Test
    void sameRowsAreSentAtEachCheckWithoutSeveritiesOrFindings() {
        sailings.late("SK-1", 60).late("SK-2", 5).late("SK-2", 5);
        active(rule(""));
        for (int check = 1; check <= 2; check++) {
            var done = api.check(sailings.name);
            assertThat(done.path("state").asString()).isEqualTo("FIRED");
            assertThat(done.path("rowsRead").asInt()).isEqualTo(3);
            mails.sent(sailings.recipient, check);
        }
        assertThat(mails.subjects(sailings.recipient)).containsOnly("3 rows: Sailings of " + sailings.name);
        assertThat(mails.lastText(sailings.recipient).replace("\r\n", "\n"))
                .contains("\n3 rows\n\nSK-1, 60 min, Reason missing\nSK-2, 5 min", "All rows are attached: ")
                .contains("You get this report when a check finds rows.")
                .doesNotContain("warning", "critical", "new", "finding");
        assertThat(lastFile()).startsWith("\ufeffSailing,Late by (min),Reason\r\nSK-1,60,\r\n");
        assertThat(findings()).isEmpty();
        var day = api.get("/api/day?from=" + Instant.now().minus(Duration.ofHours(1)) + "&until="
                + Instant.now().plus(Duration.ofHours(1)));
        assertThat(day.path("lanes").toString()).doesNotContain(sailings.name);
        assertThat(day.path("open").toString()).doesNotContain(sailings.name);
    }

    @Test
    void reportWithoutRowsIsSentOnlyIfAskedFor() {
        active(rule(""));
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("QUIET");
        assertThat(service.mailTo(sailings.recipient)).isEmpty();
        api.push(rule(", send_when_quiet: true"));
        api.check(sailings.name);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.subjects(sailings.recipient)).containsExactly("No rows: Sailings of " + sailings.name);
        assertThat(mails.lastText(sailings.recipient)).contains("even if there are no rows");
    }

    @Test
    void conditionChoosesTheRowsAndTheSplitTheirReaders() {
        sailings.late("SK-1", 60).late("SK-2", 50).late("SK-3", 5);
        String one = "one-" + sailings.recipient;
        active(rule(", split_by: sailing, split_to: { SK-1: [" + one + "] }")
                .replace("memory:", "exceptions: delay_min > 15\nmemory:"));
        api.check(sailings.name);
        mails.sent(one, 1);
        mails.sent(sailings.recipient, 1);
        assertThat(mails.lastText(one)).contains("SK-1, 60 min").doesNotContain("SK-2", "SK-3");
        assertThat(mails.lastText(sailings.recipient)).contains("SK-2, 50 min").doesNotContain("SK-1", "SK-3");
    }

    @Test
    void ruleThatBecomesAPlainReportAndARuleAgainStartsOver() {
        sailings.late("SK-1", 60).active();
        assertThat(api.check(sailings.name).path("updates").asInt()).isEqualTo(1);
        assertThat(findings().get(0).path("state").asString()).isEqualTo("OPEN");
        api.push(rule(""));
        api.check(sailings.name);
        assertThat(findings().get(0).path("state").asString()).isEqualTo("CLEARED");
        mails.sent(sailings.recipient, 2);
        api.push(sailings.rule());
        assertThat(api.check(sailings.name).path("state").asString()).isEqualTo("FIRED");
        mails.sent(sailings.recipient, 3);
        assertThat(findings()).hasSize(1);
        assertThat(findings().get(0).path("state").asString()).isEqualTo("OPEN");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "severity: critical | a plain report has no severities; remove severity",
                "memory: { mode: plain, key: [sailing] } | a plain report has no findings; remove key",
                "memory: { mode: plain, remind_every: 2 days } | a plain report has no findings; remove remind_every",
                "delivery: { to: [a@b.example], escalate: { after: 2 hours, to: [c@d.example] } } | remove escalate",
                "delivery: { to: [a@b.example], layout: { still_open: true } } | remove still_open",
            })
    void whatIsAboutFindingsIsRefused(String field, String words) {
        api.push(sailings.query("select sailing, delay_min, reason from \"" + sailings.name + "\""));
        String name = field.substring(0, field.indexOf(':'));
        String others =
                rule("").lines().filter(line -> !line.startsWith(name + ":")).reduce("", (a, b) -> a + b + "\n");
        var refused = api.pushAnswer(others + field + "\n");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains(words);
    }

    @Test
    void roundUpReportsNoPlainReport() {
        active(rule(""));
        var refused = api.pushAnswer("kind: round-up\nname: up-" + sailings.name
                + "\nowner: Traffic reporting\nrules: [" + sailings.name
                + "]\nto: [a@skerryline.example]\nschedule: { start: 2026-12-01T06:00, recur: FREQ=DAILY }\n");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.text()).contains("is a plain report, which has no updates for a round-up");
    }
}
