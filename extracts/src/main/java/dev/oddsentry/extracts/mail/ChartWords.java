package dev.oddsentry.extracts.mail;

import dev.oddsentry.core.extract.CellWords;
import dev.oddsentry.core.value.Numbers;
import dev.oddsentry.extracts.chart.Chart;
import dev.oddsentry.extracts.words.Phrases;
import java.math.BigDecimal;
import java.util.Comparator;
import java.util.Objects;
import java.util.stream.Collectors;

/** A chart in a sentence, for those who do not see it. */
final class ChartWords {
    private ChartWords() {}

    /** {@code Litres per mile over 31 checks. Tjelden: from 41.2 to 52.1, least 40.8, most 52.1.} */
    static String of(Chart chart, Phrases phrases) {
        int checks = chart.lines().stream()
                .mapToInt(line -> line.points().size())
                .max()
                .orElse(0);
        String unit = chart.unit() == null ? "" : " " + chart.unit();
        return phrases.of("chart.over", Wording.oneLine(chart.label()), checks)
                + chart.lines().stream()
                        .map(line -> " " + (line.name().isEmpty() ? "" : Wording.oneLine(line.name()) + ": ")
                                + phrases.of(
                                        "chart.line",
                                        value(line.points().getFirst().value(), unit, phrases),
                                        value(line.points().getLast().value(), unit, phrases),
                                        value(least(line), unit, phrases),
                                        value(most(line), unit, phrases)))
                        .collect(Collectors.joining());
    }

    private static BigDecimal least(Chart.Line line) {
        return line.points().stream()
                .map(Chart.Point::value)
                .min(Comparator.naturalOrder())
                .orElseThrow();
    }

    private static BigDecimal most(Chart.Line line) {
        return line.points().stream()
                .map(Chart.Point::value)
                .max(Comparator.naturalOrder())
                .orElseThrow();
    }

    private static String value(BigDecimal value, String unit, Phrases phrases) {
        return CellWords.number(Objects.requireNonNull(Numbers.readable(value)), phrases.language()) + unit;
    }
}
