package dev.oddsentry.extracts.xlsx;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.definition.Attachment.Orientation;
import dev.oddsentry.core.definition.Attachment.Page;
import dev.oddsentry.core.definition.Attachment.Paper;
import dev.oddsentry.core.definition.Attachment.Sheet;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.value.Type;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.ZoneId;
import java.util.List;
import java.util.Set;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How a workbook looks on a screen and on paper. */
class WorkbookSettingsTest {
    @TempDir
    Path folder;

    private String sheet(Page page, Sheet settings) throws IOException {
        var extract = new Extract(
                ZoneId.of("Europe/Oslo"),
                Language.EN,
                List.of(
                        Extract.Column.of("route", "Route", null, Type.TEXT),
                        Extract.Column.of("late", "Late by", null, Type.NUMBER)),
                Extract.Arrangement.plain(List.of(), "Sailings", null),
                List.of(new Extract.Row(
                        null, Set.of(), List.of(Extract.Cell.plain("Måkehamn"), Extract.Cell.plain(20L)))));
        Path file = folder.resolve("sailings.xlsx");
        try (var out = Files.newOutputStream(file)) {
            XlsxExtract.write(extract, page, settings, out);
        }
        try (var zip = new ZipFile(file.toFile());
                var in = zip.getInputStream(zip.getEntry("xl/worksheets/sheet1.xml"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @ParameterizedTest
    @CsvSource({"0, A2", "1, B2", "2, C2", "9, C2"})
    void columnsStayInSight(int frozen, String firstFree) throws IOException {
        assertThat(sheet(Page.USUAL, new Sheet(frozen, true)))
                .containsPattern("<pane [^>]*topLeftCell=\"" + firstFree + "\"");
    }

    @Test
    void filterCanBeLeftOut() throws IOException {
        assertThat(sheet(Page.USUAL, Sheet.USUAL)).contains("<autoFilter ");
        assertThat(sheet(Page.USUAL, new Sheet(0, false))).doesNotContain("<autoFilter ");
    }

    @ParameterizedTest
    @CsvSource({"A4, 9", "A3, 8", "A5, 11", "LETTER, 1", "LEGAL, 5"})
    void paperIsThatOfTheAttachment(Paper paper, int number) throws IOException {
        assertThat(sheet(new Page(paper, Orientation.LANDSCAPE, 15, null, null), Sheet.USUAL))
                .contains("paperSize=\"" + number + "\"")
                .contains("orientation=\"landscape\"");
    }
}
