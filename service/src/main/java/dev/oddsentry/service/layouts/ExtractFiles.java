package dev.oddsentry.service.layouts;

import dev.oddsentry.core.definition.Attachment;
import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.FieldFormat;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.csv.CsvExtract;
import dev.oddsentry.extracts.json.JsonExtract;
import dev.oddsentry.extracts.page.PageExtract;
import dev.oddsentry.extracts.page.PdfExtract;
import dev.oddsentry.extracts.xlsx.XlsxExtract;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.Charset;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** An extract as a file in one of the formats, with its name. */
public final class ExtractFiles {
    /** The fields that a file's name may have. */
    public static final Map<String, Type> FIELDS = Map.of(
            "rule", Type.TEXT, "date", Type.TIMESTAMP, "time", Type.TIMESTAMP, "split", Type.TEXT, "copy", Type.TEXT);

    /** Laying out a page takes many times the memory of its text. */
    private static final long MOST_CHARACTERS_OF_PDF = 1_000_000;

    private static final int LONGEST_NAME = 120;
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("HH-mm");
    private static final DateTimeFormatter SLOT = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm");

    private ExtractFiles() {}

    public record File(String name, String mediaType, byte[] bytes) {
        /** The same under another name: {@code late-sailings-2026-11-24-2.csv}. */
        public File numbered(int number) {
            int ending = name.lastIndexOf('.');
            return new File(name.substring(0, ending) + "-" + number + name.substring(ending), mediaType, bytes);
        }
    }

    /**
     * What its name and its heading say.
     *
     * @param split whose part it is; null for the whole
     * @param copy whose personal copy it is; null for none
     */
    public record About(
            String rule,
            String title,
            Instant slot,
            ZoneId zone,
            @Nullable String split,
            @Nullable String copy) {
        /** Of the rows of another query, which goes by its own name. */
        public About with(QueryDefinition query) {
            return new About(query.name(), query.title(), slot, zone, split, copy);
        }

        private Map<String, @Nullable Object> fields() {
            var there = slot.atZone(zone);
            var fields = new HashMap<String, @Nullable Object>();
            fields.put("rule", rule);
            fields.put("date", there.toLocalDate().toString());
            fields.put("time", TIME.format(there));
            FieldFormat.allow(fields, "date", there, Language.EN);
            FieldFormat.allow(fields, "time", there, Language.EN);
            fields.put("split", split == null ? "" : split);
            fields.put("copy", copy == null ? "" : copy);
            return fields;
        }

        /** A line of a page with the fields of a file's name; empty where none is written. */
        String line(@Nullable String written) {
            return written == null ? "" : Template.of(written).render(fields()).strip();
        }

        /** {@code late-sailings-2026-11-24}, with whose part it is, unless the rule says otherwise. */
        public String name(@Nullable String written) {
            String usual =
                    "{{rule}}-{{date}}" + (copy == null ? "" : "-{{copy}}") + (split == null ? "" : "-{{split}}");
            String name = Template.of(written == null ? usual : written).render(fields());
            // Marks that nobody sees could make a name read like another one.
            String harmless = name.replaceAll("\\p{Cf}+", "")
                    .replaceAll("[/\\\\:*?\"<>|\\p{Cntrl}\\u2028\\u2029]+", "-")
                    .strip();
            String cut = harmless.length() > LONGEST_NAME ? harmless.substring(0, LONGEST_NAME) : harmless;
            return cut.isEmpty() || cut.startsWith(".") ? rule : cut;
        }
    }

    /** A PDF of more rows than a person would read is a workbook instead. */
    public static File file(Attachment wanted, Extract extract, About about) {
        var format = formatOf(wanted, extract);
        var out = new ByteArrayOutputStream();
        try {
            write(wanted, format, extract, about, out);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        String mediaType =
                format == Format.CSV ? "text/csv; charset=" + wanted.csv().encoding() : format.mediaType();
        return new File(about.name(wanted.file()) + "." + format.code(), mediaType, out.toByteArray());
    }

    private static long characters(Extract extract) {
        return extract.rows().stream()
                .flatMap(row -> row.cells().stream())
                .mapToLong(cell -> cell.value() instanceof String text ? text.length() : 0)
                .sum();
    }

    private static Format formatOf(Attachment wanted, Extract extract) {
        boolean tooLong = wanted.format() == Format.PDF
                && (extract.rows().size() > PdfExtract.MOST_ROWS || characters(extract) > MOST_CHARACTERS_OF_PDF);
        return tooLong ? Format.XLSX : wanted.format();
    }

    private static void write(Attachment wanted, Format format, Extract extract, About about, OutputStream out)
            throws IOException {
        switch (format) {
            case CSV -> {
                var csv = wanted.csv();
                var style = new CsvExtract.Style(
                        csv.delimiter(), csv.decimal(), Charset.forName(csv.encoding()), csv.mark());
                CsvExtract.write(extract, style, out);
            }
            case XLSX -> XlsxExtract.write(extract, wanted.page(), wanted.sheet(), out);
            case JSON -> JsonExtract.write(extract, out);
            case HTML -> PageExtract.write(extract, heading(wanted, about), out);
            case PDF -> PdfExtract.write(extract, heading(wanted, about), out);
        }
    }

    private static PageExtract.Heading heading(Attachment wanted, About about) {
        var there = about.slot().atZone(about.zone());
        return new PageExtract.Heading(
                about.title(),
                SLOT.format(there) + " " + about.zone().getId(),
                wanted.page(),
                about.line(wanted.page().header()),
                about.line(wanted.page().footer()));
    }
}
