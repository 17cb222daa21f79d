package dev.oddsentry.extracts.mail;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.FileRows;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** Mails with rows that have no severity: plain reports, and the whole report below the updates. */
class PlainReportMailTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    private static final List<Extract.Column> COLUMNS = List.of(
            Extract.Column.of("vessel", "Vessel", null, Type.TEXT),
            new Extract.Column("litres", "Fuel", "l", Type.NUMBER, null, Map.of(), null, Total.SUM));

    private static Extract.Row row(@Nullable Severity severity, String vessel, int litres) {
        return new Extract.Row(
                severity,
                severity == null ? Set.of() : Set.of(UpdateKind.NEW),
                List.of(
                        Extract.Cell.plain(vessel),
                        new Extract.Cell(BigDecimal.valueOf(litres), severity != null, null)));
    }

    private static Announcement said(
            Language language,
            Extract.Arrangement as,
            List<Extract.Row> rows,
            List<Extract.Row> whole,
            boolean always) {
        var tells = as.plain() ? Announcement.Tells.ROWS : Announcement.Tells.UPDATES;
        return new Announcement(
                "Fuel of the week",
                null,
                "Traffic reporting",
                OSLO,
                Instant.parse("2026-11-24T05:20:00Z"),
                new Extract(OSLO, language, COLUMNS, as, rows),
                List.of(),
                whole,
                Announcement.MOST_ROWS,
                false,
                Announcement.Own.NONE,
                0,
                0,
                "the query returned rows",
                "",
                new Announcement.Habit(tells, always, Set.of(UpdateKind.NEW), null),
                null,
                null,
                null,
                List.of(),
                Announcement.Files.attached(List.of(new Announcement.Files.Attached("fuel.csv", FileRows.OPEN))),
                List.of(),
                new Announcement.Links("https://odd.example/rules/fuel", "https://odd.example/extracts/1", null, null));
    }

    private static Announcement plain(Language language, RowsAs as, boolean always, Extract.Row... rows) {
        return said(language, Extract.Arrangement.plain(List.of(), "Fuel", as), List.of(rows), List.of(), always);
    }

    @ParameterizedTest
    @EnumSource(RowsAs.class)
    void plainReportSpeaksOfRowsAndOfNothingElse(RowsAs as) {
        var said = plain(Language.EN, as, false, row(null, "Lomvi <b>", 4100), row(null, "Terna", 3900));
        assertThat(TextMail.subject(said)).isEqualTo("2 rows: Fuel of the week");
        for (String mail : List.of(HtmlMail.render(said), TextMail.render(said)))
            assertThat(mail)
                    .contains(
                            "2 rows",
                            "You get this report when a check finds rows.",
                            "All rows are attached: fuel.csv.")
                    .contains("8000 l".substring(0, 4))
                    .doesNotContain("warning", "Severity", "new", "inding", "first report", "<b>\"");
        if (as != RowsAs.FIGURES) assertThat(HtmlMail.render(said)).contains("Lomvi &lt;b&gt;");
        assertThat(HtmlMail.render(said)).containsOnlyOnce("<h1");
    }

    @ParameterizedTest
    @CsvSource({
        "EN,No rows,even if there are no rows",
        "DE,Keine Zeilen,auch wenn es keine Zeilen gibt",
        "NB,Ingen rader,også når"
    })
    void reportThatAlwaysComesSaysThatThereAreNoRows(Language language, String none, String why) {
        var said = plain(language, RowsAs.TABLE, true);
        assertThat(TextMail.subject(said)).isEqualTo(none + ": Fuel of the week");
        assertThat(TextMail.render(said)).contains(none, why);
        assertThat(HtmlMail.render(said)).contains(none, why).doesNotContain("<thead>");
    }

    @ParameterizedTest
    @EnumSource(
            value = RowsAs.class,
            names = {"TABLE", "LIST"})
    void wholeReportMarksTheExceptionsAmongItsRows(RowsAs as) {
        var exception = row(Severity.CRITICAL, "Terna", 9000);
        var said = said(
                Language.EN,
                new Extract.Arrangement(List.of(), Set.of(), "Fuel", as),
                List.of(exception),
                List.of(row(null, "Lomvi", 4100), exception),
                false);
        String html = HtmlMail.render(said);
        int from = html.indexOf("All rows</h2>");
        String below = html.substring(from, html.indexOf("</table>", from));
        assertThat(below.indexOf("Lomvi")).isLessThan(below.indexOf("Terna"));
        assertThat(below).containsOnlyOnce("critical").contains("border-bottom:2px solid");
        if (as == RowsAs.TABLE)
            assertThat(below.split("</td>", -1))
                    .as("each row has all cells, and so has the total")
                    .hasSize(3 * 3 + 1);
        assertThat(TextMail.render(said)).contains("== All rows ==\n\nLomvi, ", "▲ critical, new   Terna");
    }
}
