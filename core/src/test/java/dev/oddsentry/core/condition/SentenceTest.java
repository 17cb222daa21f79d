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

    private static final Condition.Labels SAILINGS = new Condition.Labels() {
        @Override
        public Condition.Label column(String name) {
            return LABELS.getOrDefault(name, new Condition.Label(name, null));
        }

        @Override
        public String threshold(String name) {
            return "the threshold " + name + " (15 min)";
        }
    };

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "delay_min > 15 and reason is null and status not in ('cancelled', 'training'); late by more than 15 min, reason is missing, and status is none of cancelled, training",
                "coalesce(trim(reason), '') = '' or coalesce(trim(status), '') <> ''; either reason is missing or empty or status is neither missing nor empty",
                "coalesce(trim(reason), 'none') = ''; coalesce(trim(reason), 'none') is “”",
                "heads <> tickets; heads differs from tickets",
                "delay_min >= 45 or status = 'lost'; either late by at least 45 min or status is lost",
                "status = 'x' and (delay_min < 5 or reason is not null); status is x and (either late by less than 5 min or reason is not missing)",
                "eta in last 7 days and eta not in previous month; ETA is in the last 7 days and ETA is not in previous month",
                "eta older than 2 hours; ETA is older than 2 hours",
                "delay_min not between 5 and 10; late by not between 5 and 10 min",
                "reason like 'fog%' and reason not like '%wind%'; reason starts with “fog” and reason does not contain “wind”",
                "not training; not: training holds",
                "reason matches '^f'; reason fits the expression ^f",
                "heads / tickets < 0.5; heads ÷ tickets is less than 0.5",
                "eta > date '2026-03-01'; ETA is after 2026-03-01",
                "eta + 2 hours <= today(); ETA + 2 hours is no later than today",
                "percentile(heads, 92) < 4; the 92nd percentile of heads is less than 4",
                "percentile(heads, 11) < 4; the 11th percentile of heads is less than 4",
                "delay_min >; delay_min >",
                "delay_min > threshold('late_minutes'); late by more than the threshold late_minutes (15 min)",
                "delay_min > threshold('late_minutes', heads); late by more than the threshold late_minutes (15 min) for its heads",
                "count() = 0; the number of rows is 0",
                "count(distinct status) > 3; the number of different status is more than 3",
                "sum(delay_min) filter (where status = 'sailed') > 90; the sum of late by (of rows where status is sailed) is more than 90",
                "share(where heads is null) >= 0.1; the share of rows where heads is missing is at least 0.1",
                "percentile(delay_min, 95) > usual(avg(delay_min), 8) + 3 * spread(avg(delay_min), 8); the 95th percentile of late by is more than the usual value of the average of late by over the last 8 checks + (3 × the usual spread of the average of late by over the last 8 checks)",
                "reaches(max(delay_min), 45) within 30 days; the highest late by gets to 45 within 30 days if the trend continues",
                "updates('worsened') > 0 or exceptions() >= 5; either the number of worsened findings is more than 0 or the number of exceptions is at least 5",
            })
    void saysAConditionInPlainEnglish(String condition, String sentence) {
        assertThat(Condition.sentence(condition, SAILINGS)).isEqualTo(sentence);
    }
}
