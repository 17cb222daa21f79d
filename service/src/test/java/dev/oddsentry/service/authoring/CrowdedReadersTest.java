package dev.oddsentry.service.authoring;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.HttpApi;
import dev.oddsentry.service.LateSailings;
import dev.oddsentry.service.RunningService;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** More messages than a person reads are warned of before a rule is saved. */
class CrowdedReadersTest {
    private final RunningService service = RunningService.get();
    private final HttpApi api = service.api();
    private final LateSailings sailings = new LateSailings(service);

    private String warnings(String schedule, String delivery) {
        sailings.schedule("schedule: { start: 2026-01-01T00:00, recur: " + schedule + " }")
                .saved();
        return api.pushAnswer(sailings.rule().replaceAll("(?s)delivery: \\{.*", "delivery: { " + delivery + " }"))
                .text();
    }

    /** @param messages sent over the last weeks, by another rule */
    private void sent(String address, int messages) {
        var other = new LateSailings(service).active();
        service.execute("records", """
                with sent as (
                  insert into message (id, message_id, subject, mime, slot, created_at, escalation_of)
                  select gen_random_uuid(), gen_random_uuid()::text, '', '', now(), now() - interval '1 day', definition.id
                  from definition, generate_series(1, %d) where name = '%s' and kind = 'RULE'
                  returning id)
                insert into message_recipient (message_id, address, state) select id, '%s', 'SENT' from sent
                """.formatted(messages, other.name, address));
    }

    @ParameterizedTest
    @CsvSource({
        "FREQ=HOURLY, 168 a week from this rule",
        "FREQ=HOURLY;INTERVAL=4, 42 a week from this rule",
    })
    void aRuleThatSendsAtEachOfManyChecksIsWarnedOf(String schedule, String words) {
        assertThat(warnings(schedule, "to: [" + sailings.recipient + "], send_when_quiet: true"))
                .contains("more than 40 messages a week for " + sailings.recipient + ": " + words);
    }

    @ParameterizedTest
    @CsvSource({"FREQ=DAILY, true", "FREQ=HOURLY, false"})
    void aRuleThatSendsLittleOrNobodyKnowsHowMuchIsNot(String schedule, boolean always) {
        assertThat(warnings(schedule, "to: [" + sailings.recipient + "], send_when_quiet: " + always))
                .doesNotContain("messages a week");
    }

    @Test
    void whatReadersGotLatelyCountsWhateverTheCaseOfTheirAddress() {
        String reader = "crowded-" + sailings.recipient;
        sent(reader, 160);
        assertThat(warnings("FREQ=HOURLY", "to: [" + reader + "]")).doesNotContain("messages a week");
        sent(reader.toUpperCase(Locale.ROOT), 8);
        assertThat(warnings("FREQ=HOURLY", "to: [nobody@skerryline.example], cc: [" + reader + "]"))
                .contains("more than 40 messages a week for " + reader + ": 42 a week lately")
                .doesNotContain("nobody@skerryline.example:");
        assertThat(warnings("FREQ=DAILY", "to: [" + reader + "], send_when_quiet: true"))
                .contains(reader + ": 7 a week from this rule, 42 from others lately");
    }
}
