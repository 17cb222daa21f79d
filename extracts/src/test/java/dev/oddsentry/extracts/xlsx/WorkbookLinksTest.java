package dev.oddsentry.extracts.xlsx;

import static org.assertj.core.api.Assertions.assertThat;

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
import java.util.stream.IntStream;
import java.util.zip.ZipFile;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Links of cells in workbooks. */
class WorkbookLinksTest {
    @TempDir
    Path folder;

    private String sheet(int rows) throws IOException {
        var extract = new Extract(
                ZoneId.of("Europe/Oslo"),
                Language.EN,
                List.of(Extract.Column.of("id", "Sailing", null, Type.NUMBER)),
                Extract.Arrangement.plain(List.of(), "Sailings", null),
                IntStream.range(0, rows)
                        .mapToObj(i -> new Extract.Row(
                                null,
                                Set.of(),
                                List.of(Extract.Cell.plain((long) i).linked("https://records.example/" + i))))
                        .toList());
        Path file = folder.resolve("links.xlsx");
        try (var out = Files.newOutputStream(file)) {
            XlsxExtract.write(extract, out);
        }
        try (var zip = new ZipFile(file.toFile());
                var in = zip.getInputStream(zip.getEntry("xl/worksheets/sheet1.xml"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @Test
    void numberWithALinkStaysANumber() throws IOException {
        assertThat(sheet(3)).contains("<v>2</v>").containsPattern("<hyperlink [^>]*ref=\"A4\"");
    }

    @Test
    void sheetHasNoMoreLinksThanProgramsTake() throws IOException {
        assertThat(sheet(65_600).split("<hyperlink ", -1)).hasSize(65_001);
    }
}
