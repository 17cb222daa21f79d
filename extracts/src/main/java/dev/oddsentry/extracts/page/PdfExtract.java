package dev.oddsentry.extracts.page;

import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.util.XRLog;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.extracts.words.FileWords;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Objects;

/**
 * Writes an extract as PDF, from its page: tagged, with embedded fonts that have more than Latin letters, the header on each page, page numbers.
 * The whole document is held, so it is for as many rows as a person would read.
 */
public final class PdfExtract {
    /** More rows than these go as a workbook. */
    public static final int MOST_ROWS = 2_000;

    private static final int BOLD = 700;
    private static final int REGULAR = 400;

    static {
        XRLog.setLoggingEnabled(false);
    }

    private PdfExtract() {}

    /** Writes the document; the stream stays open. */
    public static void write(Extract extract, PageExtract.Heading heading, OutputStream out) throws IOException {
        var page = new ByteArrayOutputStream();
        var readable = PdfLetters.readable(extract);
        PageExtract.writeForPaper(
                readable,
                readable == extract
                        ? heading
                        : new PageExtract.Heading(
                                PdfLetters.readable(heading.title()),
                                heading.below() + " " + FileWords.of(extract).lettersMissing(),
                                heading.page(),
                                PdfLetters.readable(heading.header()),
                                PdfLetters.readable(heading.footer())),
                page);
        var builder = new PdfRendererBuilder();
        builder.useFont(() -> font("DejaVuSans.ttf"), "DejaVu Sans", REGULAR, FontStyle.NORMAL, true);
        builder.useFont(() -> font("DejaVuSans-Bold.ttf"), "DejaVu Sans", BOLD, FontStyle.NORMAL, true);
        builder.usePdfUaAccessibility(true);
        builder.useUriResolver((base, uri) -> null);
        builder.withHtmlContent(page.toString(StandardCharsets.UTF_8), null);
        builder.withProducer("Odd Sentry");
        builder.toStream(out);
        builder.run();
        out.flush();
    }

    private static InputStream font(String name) {
        return Objects.requireNonNull(PdfExtract.class.getResourceAsStream(name), name);
    }
}
