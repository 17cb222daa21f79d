package dev.oddsentry.extracts.mail;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.chart.Chart;
import dev.oddsentry.extracts.words.Phrases;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ChartWordsTest {
    private static Chart.Line line(String name, String values) {
        var points = new ArrayList<Chart.Point>();
        for (String value : values.split(" "))
            points.add(new Chart.Point(
                    Instant.parse("2026-06-01T00:00:00Z").plusSeconds(points.size()), new BigDecimal(value)));
        return new Chart.Line(name, points);
    }

    private static String words(Language language, @Nullable String unit, Chart.Line... lines) {
        return ChartWords.of(
                new Chart("Litres per mile", unit, ZoneOffset.UTC, language, List.of(lines)), Phrases.in(language));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "EN | 41.2 40.8 52.1 | Litres per mile over 3 checks. Tjelden: from 41.2 l to 52.1 l, lowest 40.8 l, highest 52.1 l.",
                "EN | 7              | Litres per mile over 1 check. Tjelden: from 7 l to 7 l, lowest 7 l, highest 7 l.",
                "EN | -3 0 -12.5     | Litres per mile over 3 checks. Tjelden: from -3 l to -12.5 l, lowest -12.5 l, highest 0 l.",
            })
    void aChartIsSaidInASentence(Language language, String values, String sentence) {
        assertThat(words(language, "l", line("Tjelden", values))).isEqualTo(sentence);
    }

    @ParameterizedTest
    @CsvSource({"DE, '41,2'", "NB, '41,2'", "EN, 41.2"})
    void numbersFollowTheLanguage(Language language, String number) {
        assertThat(words(language, null, line("Tjelden", "41.2 50")))
                .contains(number)
                .doesNotContain("null");
    }

    @ParameterizedTest
    @CsvSource({"'two\nlines', two lines", "'Tab\there', Tab here"})
    void namesStayOnOneLine(String name, String shown) {
        assertThat(words(Language.EN, null, line(name, "1 2"), line("Lomvi", "3")))
                .contains(shown + ": ", "Lomvi: ", "over 2 checks")
                .doesNotContain("\n", "\t");
    }
}
