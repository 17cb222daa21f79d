package dev.oddsentry.extracts.page;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import dev.oddsentry.core.definition.Attachment.Orientation;
import dev.oddsentry.core.definition.Attachment.Page;
import dev.oddsentry.core.definition.Attachment.Paper;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.extract.Tone;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** PDF files, read by another program. */
class PdfExtractTest {
    private static final ZoneId OSLO = ZoneId.of("Europe/Oslo");
    private static final PageExtract.Heading HEADING = PageExtract.Heading.of("Rutene på Måkehamn", "2026-07-01 06:40");

    private static Extract.Row row(Severity severity, @Nullable Object... cells) {
        var all = new ArrayList<Extract.Cell>();
        for (int i = 0; i < cells.length; i++) all.add(new Extract.Cell(cells[i], i == 1, null));
        return new Extract.Row(severity, Set.of(UpdateKind.NEW), all);
    }

    private static Extract.Column column(String name, Type type) {
        return Extract.Column.of(name, name, null, type);
    }

    private static PDDocument pdf(Page page, String header, String footer) throws IOException {
        var extract = new Extract(
                OSLO,
                Language.EN,
                List.of(column("Route", Type.TEXT), column("Late", Type.NUMBER)),
                Extract.Arrangement.USUAL,
                List.of(row(Severity.WARNING, "Måkehamn", 20L)));
        var out = new ByteArrayOutputStream();
        PdfExtract.write(extract, new PageExtract.Heading("Routes", "today", page, header, footer), out);
        return Loader.loadPDF(out.toByteArray());
    }

    @ParameterizedTest
    @CsvSource({
        "A3, PORTRAIT, 297, 420",
        "A4, PORTRAIT, 210, 297",
        "A4, LANDSCAPE, 297, 210",
        "A5, LANDSCAPE, 210, 148",
        "LETTER, PORTRAIT, 216, 279",
        "LEGAL, LANDSCAPE, 356, 216",
    })
    void pageHasItsSizeAndLiesAsChosen(Paper paper, Orientation orientation, float width, float height)
            throws IOException {
        try (var pdf = pdf(new Page(paper, orientation, 20, null, null), "", "")) {
            var box = pdf.getPage(0).getMediaBox();
            float millimetre = 72 / 25.4f;
            assertThat(box.getWidth() / millimetre).isCloseTo(width, within(1f));
            assertThat(box.getHeight() / millimetre).isCloseTo(height, within(1f));
        }
    }

    @Test
    void headerAndFooterStandOnEachPageAsText() throws IOException {
        try (var pdf = pdf(Page.USUAL, "Måkehamn \"<b>\\ } 24", "For the harbour office")) {
            String text = new PDFTextStripper().getText(pdf);
            assertThat(text)
                    .contains("Måkehamn", "} 24", "For the harbour office", "1 / 1")
                    .doesNotContain("\\", "<b>");
        }
        try (var pdf = pdf(Page.USUAL, "", "")) {
            assertThat(new PDFTextStripper().getText(pdf).split("Routes", -1))
                    .as("the title above, and below as usual")
                    .hasSize(3);
        }
    }

    @Test
    void pdfHasEveryColumnAndBreaksNoNumber() throws IOException {
        var columns = new ArrayList<Extract.Column>();
        var cells = new ArrayList<@Nullable Object>();
        for (int i = 0; i < 60; i++) {
            columns.add(column("c" + i + "x", i % 2 == 0 ? Type.NUMBER : Type.TIMESTAMP));
            cells.add(i % 2 == 0 ? (Object) (1_000_000_000L + i) : LocalDateTime.of(2026, 3, 1, 10, 0, i));
        }
        var extract = new Extract(
                OSLO, Language.EN, columns, Extract.Arrangement.USUAL, List.of(row(Severity.NOTICE, cells.toArray())));
        String text = pdfText(extract);
        for (int i = 0; i < 60; i++) {
            assertThat(text).contains("c" + i + "x");
            assertThat(text)
                    .contains(
                            i % 2 == 0
                                    ? String.valueOf(1_000_000_000L + i)
                                    : "2026-03-01 10:00" + (i == 0 ? "" : ":%02d".formatted(i)));
        }
        assertThat(text).contains("Columns, part 2 of ");
    }

    @Test
    void pdfSaysWhereItsFontsLackLetters() throws IOException {
        var extract = new Extract(
                OSLO,
                Language.EN,
                List.of(column("name", Type.TEXT), column("other", Type.TEXT)),
                Extract.Arrangement.USUAL,
                List.of(row(Severity.NOTICE, "Ω Ж ł ß ქ", "船 \ud83d\udea2 שלום")));
        String text = pdfText(extract);
        assertThat(text)
                .contains("Ω Ж ł ß ქ", "□", "Some characters cannot be shown")
                .doesNotContain("船");
    }

    @Test
    void aSeveritysOwnWordIsCheckedForItsLettersToo() throws IOException {
        var looks = new SeverityLooks(List.of(
                new SeverityLooks.Look(Severity.NOTICE, "遅延 <late>", null),
                new SeverityLooks.Look(Severity.WARNING, "på grensen", Tone.VIOLET)));
        var extract = new Extract(
                OSLO,
                Language.EN,
                List.of(column("name", Type.TEXT)),
                Extract.Arrangement.USUAL.with(looks),
                List.of(row(Severity.NOTICE, "a"), row(Severity.WARNING, "b")));
        assertThat(pdfText(extract))
                .contains("□□ <late>", "på grensen", "Some characters cannot be shown")
                .doesNotContain("遅");
    }

    private static String pdfText(Extract extract) throws IOException {
        var bytes = new ByteArrayOutputStream();
        PdfExtract.write(extract, HEADING, bytes);
        try (var document = Loader.loadPDF(bytes.toByteArray())) {
            return new PDFTextStripper().getText(document);
        }
    }

    @Test
    void aPdfHasTheRowsInItsTextItsHeaderOnEachPageAndTags() throws IOException {
        var rows = new ArrayList<Extract.Row>();
        for (int i = 0; i < 120; i++)
            rows.add(row(Severity.WARNING, "SK-" + (1000 + i) + " Måkehamn Ελλάδα", (long) i));
        var extract = new Extract(
                OSLO,
                Language.EN,
                List.of(column("sailing", Type.TEXT), column("delay", Type.NUMBER)),
                Extract.Arrangement.USUAL,
                rows);
        var pdf = new ByteArrayOutputStream();
        PdfExtract.write(extract, HEADING, pdf);
        try (var document = Loader.loadPDF(pdf.toByteArray())) {
            String text = new PDFTextStripper().getText(document);
            for (int i = 0; i < 120; i++) assertThat(text).contains("SK-" + (1000 + i) + " Måkehamn Ελλάδα");
            int pages = document.getNumberOfPages();
            assertThat(pages).isGreaterThan(1);
            assertThat(text.split("Severity", -1)).as("the header").hasSize(pages + 1);
            assertThat(text).contains("1 / " + pages, pages + " / " + pages);
            assertThat(document.getDocumentCatalog().getStructureTreeRoot()).isNotNull();
            assertThat(document.getDocumentCatalog().getMarkInfo().isMarked()).isTrue();
        }
    }

    /** A value without spaces breaks; the words of the columns beside it do not. */
    @ParameterizedTest
    @ValueSource(ints = {30, 120, 900})
    void longValueBreaksNoWordOfOtherColumns(int length) throws IOException {
        var columns = new ArrayList<Extract.Column>();
        for (String name : List.of("scan", "link", "route", "vessel", "reason", "tickets"))
            columns.add(column(name, name.equals("tickets") ? Type.NUMBER : Type.TEXT));
        var rows = new ArrayList<Extract.Row>();
        for (int i = 0; i < 12; i++)
            rows.add(row(
                    Severity.WARNING,
                    "/var/scans/" + "x".repeat(length),
                    "https://intranet.skerryline.example/" + "y".repeat(length),
                    "Varsund – Gråvik – Siljevik",
                    "Lomvi",
                    "Technical",
                    1_234_567L));
        String text = pdfText(new Extract(OSLO, Language.EN, columns, Extract.Arrangement.USUAL, rows));
        for (String word : List.of("Varsund", "Gråvik", "Siljevik", "Lomvi", "Technical", "1234567"))
            assertThat(text.split(word, -1)).as(word).hasSize(12 + 1);
    }
}
