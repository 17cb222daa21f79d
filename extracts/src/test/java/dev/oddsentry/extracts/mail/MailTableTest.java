package dev.oddsentry.extracts.mail;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.extract.Tone;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Rows of a mail as a table, as a list, and as figures alone. */
class MailTableTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");

    private static Extract.Column number(String name, String label, @Nullable String unit, @Nullable Total total) {
        return new Extract.Column(name, label, unit, Type.NUMBER, null, Map.of(), null, total);
    }

    private static final List<Extract.Column> COLUMNS = List.of(
            Extract.Column.of("route", "Route", null, Type.TEXT),
            Extract.Column.of("sailing", "Sailing", null, Type.TEXT),
            Extract.Column.of("planned", "Planned", null, Type.TIMESTAMP),
            number("tickets", "Tickets", null, Total.SUM),
            number("heads", "On board", null, Total.SUM),
            number("late", "Late by", "min", Total.MAX));

    private static Extract.Row row(Severity severity, String route, String sailing, int tickets, int heads, int late) {
        return new Extract.Row(
                severity,
                Set.of(UpdateKind.NEW),
                List.of(
                        Extract.Cell.plain(route),
                        Extract.Cell.plain(sailing),
                        Extract.Cell.plain(LocalDateTime.of(2026, 11, 23, 7, 40)),
                        Extract.Cell.plain(BigDecimal.valueOf(tickets)),
                        new Extract.Cell(BigDecimal.valueOf(heads), true, null),
                        new Extract.Cell(BigDecimal.valueOf(late), false, BigDecimal.TEN)),
                "https://odd.example/findings/" + sailing,
                null);
    }

    private static final List<Extract.Row> ROWS = List.of(
            row(Severity.CRITICAL, "Holm – Varsund", "SK-231", 112, 126, 14),
            row(Severity.WARNING, "Holm – Varsund", "SK-233", 98, 95, 3),
            row(Severity.WARNING, "Ternvik – Holm", "SK-304", 1061, 1066, 5));

    private static Extract extract(List<Integer> groupBy, @Nullable RowsAs as, List<Extract.Row> rows) {
        return new Extract(
                OSLO, Language.EN, COLUMNS, new Extract.Arrangement(groupBy, ExtraColumn.ALL, "Late", as), rows);
    }

    private static Announcement saying(Extract news) {
        return new Announcement(
                "Headcount differs from tickets",
                null,
                "Traffic reporting",
                OSLO,
                Instant.parse("2026-11-24T05:20:00Z"),
                news,
                List.of(),
                List.of(),
                Announcement.MOST_ROWS,
                false,
                Announcement.Own.NONE,
                13,
                0,
                "rows match the condition: on board differs from tickets",
                "",
                new Announcement.Habit(Announcement.Tells.UPDATES, false, Set.of(UpdateKind.NEW), null),
                Instant.parse("2026-11-23T05:20:00Z"),
                Instant.parse("2026-11-25T05:20:00Z"),
                null,
                List.of(),
                Announcement.Files.NONE,
                List.of(),
                Announcement.Links.to("https://odd.example/rules/headcount"));
    }

    private static String html(List<Integer> groupBy, @Nullable RowsAs as) {
        return HtmlMail.render(saying(extract(groupBy, as, ROWS)));
    }

    @Test
    void severitiesHaveTheWordsAndColoursOfTheLayoutWhateverIsInThem() {
        var looks = new SeverityLooks(List.of(
                new SeverityLooks.Look(Severity.CRITICAL, "<b>too many</b> & late", Tone.VIOLET),
                new SeverityLooks.Look(Severity.WARNING, null, Tone.GREEN)));
        for (var as : List.of(RowsAs.TABLE, RowsAs.LIST)) {
            var usual = extract(List.of(), as, ROWS);
            var news =
                    new Extract(OSLO, Language.EN, COLUMNS, usual.arrangement().with(looks), ROWS);
            assertThat(HtmlMail.render(saying(news)))
                    .as(as.name())
                    .contains("&lt;b&gt;too many&lt;/b&gt; &amp; late", "color:" + Tone.VIOLET.onWhite(), "✓")
                    .doesNotContain("<b>too many", "color:#b3412e", ">critical<");
            assertThat(TextMail.render(saying(news))).contains("▲ <b>too many</b> & late", "✓ warning");
            assertThat(TextMail.subject(saying(news)))
                    .isEqualTo("1 <b>too many</b> & late, 2 warnings: Headcount differs from tickets");
        }
    }

    @Test
    void headingsAreThereOnceAndEachCellHasItsLabelForANarrowScreen() {
        String html = html(List.of(), null);
        assertThat(html).containsOnlyOnce(">Tickets</th>").containsOnlyOnce(">Late by (min)</th>");
        assertThat(html.split("data-l=\"Tickets\"", -1))
                .as("in three rows and the total")
                .hasSize(5);
        assertThat(html).contains("@media (max-width:560px)", "max-width:760px");
    }

    @Test
    void numbersAreOnTheRightWithoutTheirUnitAndNamesLeadToTheFinding() {
        String html = html(List.of(), null);
        assertThat(html).containsPattern("align=\"right\" nowrap style=\"[^\"]*\">112</td>");
        assertThat(html)
                .contains("<a href=\"https://odd.example/findings/SK-304\"")
                .doesNotContain("14 min");
        assertThat(html).as("only the cell that decided").contains("border-bottom:2px solid\">126</b>");
        assertThat(html).doesNotContain("border-bottom:2px solid\">112</b>");
        assertThat(html).as("what it was").contains("14<span style=\"color:#5d6b78\"> (was 10");
    }

    @Test
    void asManyRowsAsAMailShowsStayFarBelowWhatMailProgramsCut() {
        var many = IntStream.range(0, Announcement.MOST_ROWS)
                .mapToObj(i -> row(Severity.WARNING, "Skjærnes – Måkehamn", "SK-" + (1000 + i), 112, 126, 14))
                .toList();
        String html = HtmlMail.render(saying(extract(List.of(), RowsAs.TABLE, many)));
        assertThat(html).contains(">SK-1049</td>");
        assertThat(html.getBytes(StandardCharsets.UTF_8).length)
                .as("some programs cut at 102 kB")
                .isLessThan(60_000);
    }

    @Test
    void textsBreakBetweenWordsSoThatNothingIsOutsideTheMail() {
        var worse = new Extract.Row(
                Severity.CRITICAL, Set.of(UpdateKind.WORSENED), ROWS.getFirst().cells());
        String html = HtmlMail.render(saying(extract(List.of(), RowsAs.TABLE, List.of(worse, ROWS.getLast()))));
        assertThat(html).containsPattern("<td style=\"[^\"]*\">critical, worsened</td>");
        assertThat(html).containsPattern("data-l=\"Planned\" nowrap");
        assertThat(html).doesNotContain("word-break");
        var wide = Extract.Cell.plain("x".repeat(60));
        var row = new Extract.Row(Severity.NOTICE, Set.of(UpdateKind.NEW), Collections.nCopies(COLUMNS.size(), wide));
        assertThat(HtmlMail.render(saying(extract(List.of(), RowsAs.TABLE, List.of(row)))))
                .contains(";word-break:break-word\">");
    }

    @Test
    void groupsHaveTheirHeadingsAndTotalsBelowTheirColumns() {
        String html = html(List.of(0), RowsAs.TABLE);
        assertThat(html).doesNotContain(">Route</th>").contains(">Holm – Varsund</td>", ">Ternvik – Holm</td>");
        assertThat(html).contains(">2 rows</td>", ">1 row</td>", ">All 3 reported here</td>");
        assertThat(html).contains(">210</td>", ">221</td>", ">1271</td>").contains(">highest 14</td>");
    }

    @Test
    void severityIsAWordAndSaysMoreWhereRowsDiffer() {
        assertThat(html(List.of(), null)).contains("font-weight:600\">critical</td>");
        var rows = new ArrayList<>(ROWS);
        rows.add(new Extract.Row(
                Severity.WARNING, Set.of(UpdateKind.CLEARED), ROWS.getFirst().cells()));
        assertThat(HtmlMail.render(saying(extract(List.of(), null, rows))))
                .contains(">critical, new</td>", "color:#2f7d6b;font-weight:600\">warning, cleared</td>");
    }

    @Test
    void figuresHaveTotalsOfGroupsAndNoRow() {
        var said = saying(extract(List.of(0), RowsAs.FIGURES, ROWS));
        assertThat(HtmlMail.render(said))
                .contains("Holm – Varsund: Tickets, sum 210")
                .doesNotContain("SK-231");
        assertThat(TextMail.render(said))
                .contains("Total of the 3 reported here")
                .doesNotContain("SK-231");
    }

    @Test
    void listHasLabelsInEachRow() {
        assertThat(html(List.of(), RowsAs.LIST))
                .doesNotContain("<th ", "<style")
                .contains("Tickets 112");
    }

    @ParameterizedTest
    @CsvSource({"8, 8, true", "8, 9, false", "9, 4, false", "8, 60, false", "2, 69, true", "2, 71, false", "1, 0, true"
    })
    void aTableIsTakenWhereItFits(int columns, int characters, boolean fits) {
        var some = new ArrayList<Extract.Column>();
        for (int i = 0; i < columns; i++) some.add(Extract.Column.of("c" + i, "C" + i, null, Type.TEXT));
        var row = new Extract.Row(
                Severity.NOTICE,
                Set.of(UpdateKind.NEW),
                Collections.nCopies(columns, Extract.Cell.plain("x".repeat(characters))));
        var extract = new Extract(OSLO, Language.EN, some, Extract.Arrangement.USUAL, List.of(row));
        assertThat(HtmlMail.render(saying(extract)).contains("<thead>")).isEqualTo(fits);
    }

    @Test
    void nothingInTheDataEndsACellOrAnAttribute() {
        var hostile = "\"><script>alert('{{x}}')</script>&{{{y}}}";
        var row = new Extract.Row(
                Severity.WARNING,
                Set.of(UpdateKind.NEW),
                List.of(Extract.Cell.plain(hostile), new Extract.Cell(hostile, true, hostile)),
                "https://odd.example/?a=\"><b>",
                null);
        var extract = new Extract(
                OSLO,
                Language.EN,
                List.of(
                        Extract.Column.of("a", hostile, null, Type.TEXT),
                        Extract.Column.of("b", hostile, hostile, Type.TEXT)),
                new Extract.Arrangement(List.of(), Set.of(), "x", RowsAs.TABLE),
                List.of(row));
        assertThat(HtmlMail.render(saying(extract)))
                .doesNotContain("<script", "\"><b>")
                .contains("&lt;script&gt;");
    }

    @Test
    void emptyMissingAndNoRowsAreSaid() {
        var cells = new ArrayList<Extract.Cell>(ROWS.getFirst().cells());
        cells.set(1, Extract.Cell.plain(null));
        cells.set(3, Extract.Cell.plain(null));
        var row = new Extract.Row(Severity.WARNING, Set.of(UpdateKind.NEW), cells);
        assertThat(HtmlMail.render(saying(extract(List.of(), null, List.of(row)))))
                .contains(">missing</span>");
        assertThat(HtmlMail.render(saying(extract(List.of(), RowsAs.TABLE, List.of()))))
                .doesNotContain("<td class=\"n\"");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "WORSENED; TABLE; EN; critical, worsened, open since Fri 20 Nov 17:35",
                "REMINDER; LIST; EN; critical, still open since Fri 20 Nov 17:35",
                "CLEARED; TABLE; EN; critical, cleared, was open since Fri 20 Nov 17:35",
                "WORSENED; TABLE; NB; åpen siden",
                "WORSENED; LIST; DE; offen seit",
            })
    void rowSaysHowLongItHasLasted(UpdateKind kind, RowsAs as, Language language, String words) {
        var began = Instant.parse("2026-11-20T16:35:20Z");
        var lasting =
                new Extract.Row(Severity.CRITICAL, Set.of(kind), ROWS.getFirst().cells()).lasting(began);
        var extract = extract(List.of(), as, List.of(lasting, ROWS.getLast())).in(language);
        // In a table the age is below the severity.
        assertThat(HtmlMail.render(saying(extract))
                        .replaceAll(", |<[^>]+>|\u00a0", " ")
                        .replaceAll(" +", " "))
                .contains(words.replace(", ", " "));
        assertThat(TextMail.render(saying(extract))).contains(words);
    }

    @Test
    void findingThatMovedAwayKeepsItsAgeToItself() {
        var moved = new Extract.Row(
                        Severity.CRITICAL,
                        Set.of(UpdateKind.MOVED),
                        ROWS.getFirst().cells())
                .lasting(Instant.parse("2026-11-20T16:35:20Z"));
        assertThat(TextMail.render(saying(extract(List.of(), null, List.of(moved)))))
                .doesNotContain("since Fri");
    }
}
