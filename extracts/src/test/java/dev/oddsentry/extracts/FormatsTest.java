package dev.oddsentry.extracts;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.CellFormat;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.Total;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.chart.Chart;
import dev.oddsentry.extracts.csv.CsvExtract;
import dev.oddsentry.extracts.json.JsonExtract;
import dev.oddsentry.extracts.pack.ZipPack;
import dev.oddsentry.extracts.page.PageExtract;
import dev.oddsentry.extracts.xlsx.XlsxExtract;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import javax.imageio.ImageIO;
import net.lingala.zip4j.ZipFile;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.Row;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.json.JsonMapper;

/** The same rows in each format, read by other programs' readers. */
class FormatsTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    private static final Instant WHEN = Instant.parse("2026-07-01T04:40:00Z");
    private static final PageExtract.Heading HEADING = PageExtract.Heading.of("Rutene på Måkehamn", "2026-07-01 06:40");

    private static Extract.Row row(Severity severity, @Nullable Object... cells) {
        var all = new ArrayList<Extract.Cell>();
        for (int i = 0; i < cells.length; i++) all.add(new Extract.Cell(cells[i], i == 1, null));
        return new Extract.Row(severity, Set.of(UpdateKind.NEW), all);
    }

    private static Extract.Column column(String name, Type type) {
        return Extract.Column.of(name, name, null, type);
    }

    private static Extract odd() {
        return new Extract(
                OSLO,
                Language.EN,
                List.of(
                        column("text", Type.TEXT),
                        column("number", Type.NUMBER),
                        column("date", Type.DATE),
                        column("instant", Type.INSTANT),
                        column("truth", Type.TRUTH),
                        new Extract.Column(
                                "status", "Status", null, Type.NUMBER, null, Map.of("1", "sailed"), null, null)),
                Extract.Arrangement.USUAL,
                List.of(
                        row(Severity.CRITICAL, "=1+1", 12L, LocalDate.of(2026, 2, 28), WHEN, true, 1L),
                        row(Severity.WARNING, "007", new BigDecimal("1.250"), LocalDate.MAX, Instant.MIN, false, 2L),
                        row(
                                Severity.NOTICE,
                                "Ærø\u0001 \ud83d\udea2 \ud83d",
                                123_456_789_012_345_678L,
                                null,
                                null,
                                null,
                                null),
                        row(Severity.NOTICE, "", Double.NaN, LocalDate.of(1814, 5, 17), WHEN, null, null),
                        row(Severity.NOTICE, "least", Long.MIN_VALUE, null, null, null, null)));
    }

    private static List<Row> sheet(Extract extract) throws IOException {
        var bytes = new ByteArrayOutputStream();
        XlsxExtract.write(extract, bytes);
        try (var workbook = new ReadableWorkbook(new ByteArrayInputStream(bytes.toByteArray()))) {
            return workbook.getFirstSheet().read();
        }
    }

    @Test
    void aWorkbookHasTypedCellsAndNoFormula() throws IOException {
        var rows = sheet(odd());
        assertThat(rows).hasSize(6);
        assertThat(rows.getFirst().getCellText(0)).isEqualTo("Severity");
        var first = rows.get(1);
        assertThat(first.getCell(2).getType()).isEqualTo(CellType.STRING);
        assertThat(first.getCellText(2)).isEqualTo("=1+1");
        assertThat(first.getCellAsNumber(3)).contains(new BigDecimal("12"));
        assertThat(first.getCellAsDate(4)).contains(LocalDateTime.of(2026, 2, 28, 0, 0));
        assertThat(first.getCellAsDate(5)).contains(LocalDateTime.of(2026, 7, 1, 6, 40));
        assertThat(first.getCellAsBoolean(6)).contains(true);
        assertThat(first.getCellText(7)).as("a code's word").isEqualTo("sailed");
        var second = rows.get(2);
        assertThat(second.getCellText(2)).as("leading zeros").isEqualTo("007");
        assertThat(second.getCellAsNumber(3).orElseThrow()).isEqualByComparingTo("1.25");
        assertThat(second.getCellText(4)).isEqualTo("infinity");
        assertThat(second.getCellText(7)).as("a code without a word").isEqualTo("2");
        assertThat(rows.get(3).getCellText(2)).isEqualTo("Ærø\ufffd \ud83d\udea2 \ufffd");
        assertThat(rows.get(3).getCellText(3)).as("every digit").isEqualTo("123456789012345678");
        assertThat(rows.get(5).getCellText(3)).isEqualTo("-9223372036854775808");
        assertThat(rows.get(4).getCellText(4)).as("before sheets have dates").isEqualTo("1814-05-17");
    }

    private static Extract types() {
        var values = new LinkedHashMap<String, Object>();
        values.put("seconds", LocalDateTime.of(2026, 3, 1, 10, 0, 7));
        values.put("millis", LocalDateTime.of(2026, 3, 1, 10, 0, 7, 250_000_000));
        values.put("micros", LocalDateTime.of(2026, 3, 1, 10, 0, 7, 250_001_000));
        values.put("at", Instant.parse("2026-03-29T01:00:30Z"));
        values.put("midnight", LocalTime.MAX);
        values.put("took", new Span(14, -3, Duration.ofMinutes(-90)));
        values.put("early", new Span(0, 0, Duration.ofSeconds(-5).minusNanos(500_000)));
        values.put("founded", LocalDate.of(-43, 3, 15));
        values.put("phone", "+47 12 34 56 78");
        values.put("none", Double.NaN);
        values.put("most", Double.POSITIVE_INFINITY);
        var types = List.of(
                Type.TIMESTAMP,
                Type.TIMESTAMP,
                Type.TIMESTAMP,
                Type.INSTANT,
                Type.TIME,
                Type.DURATION,
                Type.DURATION,
                Type.DATE,
                Type.TEXT,
                Type.NUMBER,
                Type.NUMBER);
        var columns = new ArrayList<Extract.Column>();
        var names = List.copyOf(values.keySet());
        for (int i = 0; i < names.size(); i++) columns.add(column(names.get(i), types.get(i)));
        return new Extract(
                OSLO,
                Language.EN,
                columns,
                Extract.Arrangement.USUAL,
                List.of(row(Severity.NOTICE, values.values().toArray())));
    }

    @Test
    void sheetsKeepSecondsAndSayTheZone() throws IOException {
        var rows = sheet(types());
        assertThat(rows.get(0).getCellText(5)).isEqualTo("at (Europe/Oslo)");
        var row = rows.get(1);
        assertThat(row.getCellAsDate(2)).contains(LocalDateTime.of(2026, 3, 1, 10, 0, 7));
        assertThat(row.getCellAsDate(3)).contains(LocalDateTime.of(2026, 3, 1, 10, 0, 7, 250_000_000));
        assertThat(row.getCellText(4)).as("finer than a sheet can count").isEqualTo("2026-03-01 10:00:07.250001");
        assertThat(row.getCellText(6)).isEqualTo("24:00");
        assertThat(row.getCellText(7)).isEqualTo("1 year 2 months -3 days -01:30");
        assertThat(row.getCellText(8)).isEqualTo("-00:00:05.0005");
        assertThat(row.getCellText(9)).isEqualTo("-0043-03-15");
    }

    @Test
    void jsonSaysWhatItHasNoNumberFor() {
        var bytes = new ByteArrayOutputStream();
        JsonExtract.write(types(), bytes);
        var values = JsonMapper.shared()
                .readTree(bytes.toByteArray())
                .path("rows")
                .path(0)
                .path("values");
        assertThat(values.path("none").asString()).isEqualTo("NaN");
        assertThat(values.path("most").asString()).isEqualTo("Infinity");
        assertThat(values.path("took").asString()).isEqualTo("P14M-3DT-1H-30M");
        assertThat(values.path("at").asString()).isEqualTo("2026-03-29T01:00:30Z");
        assertThat(values.path("midnight").asString()).isEqualTo("24:00");
    }

    @Test
    void csvLeavesSignedValuesAsTheyAre() throws IOException {
        var bytes = new ByteArrayOutputStream();
        CsvExtract.write(types(), new CsvExtract.Style(',', '.', StandardCharsets.UTF_8, false), bytes);
        assertThat(bytes.toString(StandardCharsets.UTF_8))
                .contains(",-00:00:05.0005,-0043-03-15,+47 12 34 56 78,NaN,Infinity");
    }

    @Test
    void groupsHaveHeadingsAndTotalsAndWhatIsOverCountsNoMore() throws IOException {
        var columns = List.of(
                column("route", Type.TEXT),
                new Extract.Column(
                        "delay", "Late by", "min", Type.NUMBER, CellFormat.of("0.0"), Map.of(), 20, Total.SUM));
        var arrangement = new Extract.Arrangement(List.of(0), Set.of(), "Late");
        var over = new Extract.Row(
                Severity.WARNING,
                Set.of(UpdateKind.CLEARED),
                List.of(Extract.Cell.plain("Holm"), Extract.Cell.plain(100L)));
        var extract = new Extract(
                OSLO,
                Language.DE,
                columns,
                arrangement,
                List.of(
                        row(Severity.WARNING, "Holm", 20L),
                        row(Severity.WARNING, "Vik", 5L),
                        row(Severity.WARNING, "Holm", 30L),
                        over));
        var rows = sheet(extract);
        assertThat(rows.stream().map(row -> row.getCellText(0)))
                .containsExactly(
                        "route",
                        "Holm: 3",
                        "Holm",
                        "Holm",
                        "Holm",
                        "Summe von Holm",
                        "Vik: 1",
                        "Vik",
                        "Summe von Vik",
                        "Summe der 3 hier gemeldeten");
        assertThat(rows.get(5).getCellAsNumber(1).orElseThrow()).isEqualByComparingTo("50");
        var page = new ByteArrayOutputStream();
        PageExtract.write(extract, HEADING, page);
        assertThat(page.toString(StandardCharsets.UTF_8))
                .contains("Summe von Holm</td><td class=\"n\">50,0</td>", "Late by (min)", "lang=\"de\"");
    }

    @Test
    void jsonKeepsEveryDigitAndTheCode() {
        var bytes = new ByteArrayOutputStream();
        JsonExtract.write(odd(), bytes);
        var json = new JsonMapper().readTree(bytes.toString(StandardCharsets.UTF_8));
        var rows = json.path("rows");
        assertThat(rows.size()).isEqualTo(5);
        assertThat(rows.path(0).path("values").path("status").asInt()).isEqualTo(1);
        assertThat(rows.path(0).path("words").path("status").asString()).isEqualTo("sailed");
        assertThat(rows.path(0).path("marked").path(0).asString()).isEqualTo("number");
        assertThat(rows.path(1).path("values").path("number").asDecimal()).isEqualByComparingTo("1.250");
        assertThat(rows.path(2).path("values").path("number").asLong()).isEqualTo(123_456_789_012_345_678L);
        assertThat(rows.path(3).path("values").path("number").asString()).isEqualTo("NaN");
    }

    @Test
    void csvIsWrittenAsOthersWantIt() throws IOException {
        var extract = new Extract(
                OSLO,
                Language.EN,
                List.of(column("text", Type.TEXT), column("number", Type.NUMBER)),
                new Extract.Arrangement(List.of(), Set.of(), "x"),
                List.of(row(Severity.NOTICE, "Ærø; Ω", new BigDecimal("-1.5"))));
        var bytes = new ByteArrayOutputStream();
        CsvExtract.write(extract, new CsvExtract.Style(';', ',', Charset.forName("windows-1252"), false), bytes);
        assertThat(bytes.toString(Charset.forName("windows-1252"))).isEqualTo("text;number\r\n\"Ærø; ?\";-1,5\r\n");
    }

    @Test
    void anEncryptedZipOpensWithItsPasswordAlone(@TempDir Path folder) throws IOException {
        var entries = List.of(new ZipPack.Entry("rader æøå.csv", "a,b".getBytes(StandardCharsets.UTF_8)));
        Path file = folder.resolve("x.zip");
        Files.write(file, ZipPack.of(entries, WHEN, "correct horse".toCharArray()));
        try (var zip = new ZipFile(file.toFile(), "correct horse".toCharArray())) {
            assertThat(zip.isEncrypted()).isTrue();
            zip.extractAll(folder.toString());
        }
        assertThat(Files.readString(folder.resolve("rader æøå.csv"))).isEqualTo("a,b");
    }

    @Test
    void aChartIsDrawnWithoutAScreen() throws IOException {
        var points = new ArrayList<Chart.Point>();
        for (int i = 0; i < 30; i++)
            points.add(new Chart.Point(WHEN.plusSeconds(i * 3_600L), BigDecimal.valueOf(40 + i % 7)));
        var one = new Chart.Line("Tjelden", points);
        var other = new Chart.Line("Ærfugl", List.of(points.getFirst(), points.getLast()));
        byte[] png = new Chart("Litres per mile", null, OSLO, Language.NB, List.of(one, other)).png();
        var image = ImageIO.read(new ByteArrayInputStream(png));
        assertThat(image.getWidth()).isEqualTo(1_160);
        var colours = new java.util.HashSet<Integer>();
        for (int x = 0; x < image.getWidth(); x += 2)
            for (int y = 0; y < image.getHeight(); y += 2) colours.add(image.getRGB(x, y) & 0xffffff);
        assertThat(colours).contains(0xffffff, 0xb3412e, 0x2f7d6b);
    }

    @Test
    void filesSpeakTheLanguageOfTheMail() throws IOException {
        var german = new Extract(
                OSLO,
                Language.DE,
                List.of(Extract.Column.of("n", "Zahl", null, Type.NUMBER)),
                Extract.Arrangement.USUAL,
                List.of(new Extract.Row(
                        Severity.CRITICAL,
                        Set.of(UpdateKind.RETURNED),
                        List.of(Extract.Cell.plain(new BigDecimal("1.5"))))));
        var csv = new ByteArrayOutputStream();
        CsvExtract.write(german, new CsvExtract.Style(';', ',', StandardCharsets.UTF_8, false), csv);
        assertThat(csv.toString(StandardCharsets.UTF_8))
                .isEqualTo("Schweregrad;Änderung;Zahl\r\nkritisch;wieder aufgetreten;1,5\r\n");
        var page = new ByteArrayOutputStream();
        PageExtract.write(german, PageExtract.Heading.of("t", "b"), page);
        assertThat(page.toString(StandardCharsets.UTF_8))
                .contains("<th scope=\"col\">Schweregrad</th>", "kritisch", "wieder aufgetreten");
    }
}
