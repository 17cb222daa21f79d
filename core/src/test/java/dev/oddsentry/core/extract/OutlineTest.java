package dev.oddsentry.core.extract;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.value.Type;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

/** Headings, rows and totals of an extract of which some rows are shown. */
class OutlineTest {
    private static final Extract EXTRACT = new Extract(
            ZoneOffset.UTC,
            Language.EN,
            List.of(
                    Extract.Column.of("route", "Route", null, Type.TEXT),
                    new Extract.Column("late", "Late", "min", Type.NUMBER, null, Map.of(), null, Total.SUM)),
            new Extract.Arrangement(List.of(0), Set.of(), "Late"),
            List.of(row("Holm", 40), row("Vik", 30), row("Holm", 20), row("Terna", 10), row("Vik", 5)));

    private static Extract.Row row(String route, long late) {
        return new Extract.Row(Severity.NOTICE, Set.of(), List.of(Extract.Cell.plain(route), Extract.Cell.plain(late)));
    }

    private static List<String> lines(int most) {
        return Outline.of(EXTRACT, most).stream()
                .map(line -> switch (line) {
                    case Outline.RowLine(var row) -> row.cells().get(1).value().toString();
                    case Outline.GroupLine(var values, int rows) -> values.getFirst() + ": " + rows;
                    case Outline.TotalLine(var values, var totals, int rows, boolean reported) ->
                        (values.isEmpty() ? (reported ? "reported " : "all ") + rows : values.getFirst()) + " = "
                                + totals.get(1);
                })
                .toList();
    }

    @Test
    void countsAndTotalsAreOfAllRowsHoweverFewAreShown() {
        assertThat(lines(2)).containsExactly("Holm: 2", "40", "Holm = 60", "Vik: 2", "30", "Vik = 35", "all 5 = 105");
        assertThat(lines(1)).containsExactly("Holm: 2", "40", "Holm = 60", "all 5 = 105");
        assertThat(lines(0)).containsExactly("all 5 = 105");
    }

    @Test
    void allRowsHaveTheirLines() {
        assertThat(lines(5))
                .containsExactly(
                        "Holm: 2",
                        "40",
                        "20",
                        "Holm = 60",
                        "Vik: 2",
                        "30",
                        "5",
                        "Vik = 35",
                        "Terna: 1",
                        "10",
                        "Terna = 10",
                        "all 5 = 105");
        assertThat(lines(Integer.MAX_VALUE)).isEqualTo(lines(5));
    }
}
