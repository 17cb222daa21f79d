package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Properties;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

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
        public String threshold(String name, Locale locale) {
            return SentenceWords.in(locale).of("threshold", "15 min", name);
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
                "eta in last 7 days and eta not in previous month; ETA is in the last 7 days and ETA is not in the previous month",
                "eta older than 2 hours; ETA is older than 2 hours",
                "delay_min not between 5 and 10; late by not between 5 and 10 min",
                "reason like 'fog%' and reason not like '%wind%'; reason starts with “fog” and reason does not contain “wind”",
                "not training; not: training is true",
                "reason matches '^f'; reason fits the expression ^f",
                "heads / tickets < 0.5; heads ÷ tickets is less than 0.5",
                "eta > date '2026-03-01'; ETA is after 2026-03-01",
                "eta + 2 hours <= today(); ETA + 2 hours is no later than today",
                "percentile(heads, 92) < 4; the 92nd percentile of heads is less than 4",
                "percentile(heads, 11) < 4; the 11th percentile of heads is less than 4",
                "delay_min >; delay_min >",
                "updates('fogged') > 0; the number of fogged findings is more than 0",
                "delay_min > threshold('late_minutes'); late by more than 15 min (threshold late_minutes)",
                "delay_min > threshold('late_minutes', heads); late by more than 15 min (threshold late_minutes) for its heads",
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

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            quoteCharacter = '`',
            value = {
                "delay_min > 15 and reason is null and status not in ('cancelled', 'training'); Late by ist größer als 15 min, Reason fehlt und Status ist keines von cancelled, training; late by er over 15 min, reason mangler og status er ingen av cancelled, training",
                "status = 'x' or delay_min between 5 and 10; entweder Status ist x oder Late by liegt zwischen 5 und 10 min; enten status er x eller late by er mellom 5 og 10 min",
                "eta in last 7 days; ETA liegt in den letzten 7 Tagen; ETA er i løpet av de siste 7 dager",
                "eta not in previous month; ETA liegt nicht im Vormonat; ETA er ikke i forrige måned",
                "eta older than 1 hour; ETA liegt mehr als 1 Stunde zurück; ETA er mer enn 1 time tilbake",
                "eta < now(); ETA liegt vor jetzt; ETA er før nå",
                "reason like 'fog%'; Reason beginnt mit „fog“; reason begynner med «fog»",
                "delay_min > threshold('late_minutes'); Late by ist größer als 15 min (Schwellenwert late_minutes); late by er over 15 min (terskel late_minutes)",
                "percentile(delay_min, 95) > 2 * usual(avg(delay_min), 8); 95. Perzentil von Late by ist größer als 2 × üblicher Wert von Durchschnitt von Late by über die letzten 8 Prüfungen; 95. persentil av late by er over 2 × vanlig verdi av gjennomsnittet av late by over de siste 8 kontrollene",
                "updates('worsened') > 0; Anzahl der Befunde (verschlechtert) ist größer als 0; antall funn (forverrede) er over 0",
                "coalesce(trim(reason), '') = ''; Reason fehlt oder ist leer; reason mangler eller er tom",
            })
    void saysAConditionInTheLanguageOfTheReader(String condition, String german, String norwegian) {
        assertThat(Condition.sentence(condition, SAILINGS, Locale.GERMANY)).isEqualTo(german);
        assertThat(Condition.sentence(condition, SAILINGS, Locale.of("nb", "NO")))
                .isEqualTo(norwegian);
    }

    @ParameterizedTest
    @ValueSource(strings = {"de", "nb"})
    void eachPhraseIsThereInEveryLanguageWithTheSamePlaces(String language) throws IOException {
        var english = phrases("");
        var other = phrases("_" + language);
        assertThat(other.stringPropertyNames()).isEqualTo(english.stringPropertyNames());
        for (String key : english.stringPropertyNames())
            assertThat(places(other.getProperty(key))).as(key).isEqualTo(places(english.getProperty(key)));
    }

    private static Properties phrases(String suffix) throws IOException {
        var phrases = new Properties();
        try (var file = Objects.requireNonNull(
                SentenceTest.class.getResourceAsStream("sentence" + suffix + ".properties"), suffix)) {
            phrases.load(new InputStreamReader(file, StandardCharsets.UTF_8));
        }
        return phrases;
    }

    private static Set<String> places(String phrase) {
        return Pattern.compile("\\{\\d}")
                .matcher(phrase)
                .results()
                .map(MatchResult::group)
                .collect(Collectors.toSet());
    }

    @ParameterizedTest
    @ValueSource(strings = {"fr", "ja"})
    void anotherLanguageGetsEnglishWhateverTheMachineSpeaks(String language) {
        var before = Locale.getDefault();
        Locale.setDefault(Locale.GERMANY);
        try {
            assertThat(Condition.sentence("reason is null", SAILINGS, Locale.of(language)))
                    .isEqualTo("reason is missing");
        } finally {
            Locale.setDefault(before);
        }
    }
}
