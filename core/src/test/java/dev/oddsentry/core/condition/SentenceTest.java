package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SentenceTest {
    private static final Map<String, Condition.Label> LABELS = Map.of(
            "delay_min", new Condition.Label("Late by", "min"),
            "reason", new Condition.Label("Reason", null),
            "status", new Condition.Label("Status", null),
            "eta", new Condition.Label("ETA", null));

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "delay_min > 15 and reason is null and status not in ('cancelled', 'training'); late by over 15 min, reason is missing, and status is none of cancelled, training",
                "heads <> tickets; heads is not tickets",
                "delay_min >= 45 or status = 'lost'; either late by at least 45 min or status is lost",
                "status = 'x' and (delay_min < 5 or reason is not null); status is x and (either late by under 5 min or reason is there)",
                "eta in last 7 days and eta not in previous month; ETA is in the last 7 days and ETA is not in previous month",
                "eta older than 2 hours; ETA is older than 2 hours",
                "delay_min not between 5 and 10; late by not between 5 and 10 min",
                "reason like 'fog%' and reason not like '%wind%'; reason starts with “fog” and reason does not contain “wind”",
                "not training; not: training holds",
                "reason matches '^f'; reason fits the expression ^f",
                "heads / tickets < 0.5; heads / tickets is under 0.5",
                "eta > date '2026-03-01'; ETA is over 2026-03-01",
                "delay_min >; delay_min >",
            })
    void saysAConditionInPlainEnglish(String condition, String sentence) {
        assertThat(Condition.sentence(
                        condition, column -> LABELS.getOrDefault(column, new Condition.Label(column, null))))
                .isEqualTo(sentence);
    }
}
