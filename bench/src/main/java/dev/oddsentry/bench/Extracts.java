package dev.oddsentry.bench;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.csv.CsvExtract;
import dev.oddsentry.extracts.xlsx.XlsxExtract;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import java.util.zip.ZipFile;

/**
 * Writes 200,000 rows of 12 columns as CSV and as a workbook, each beside its limit in the same process: the same bytes through a plain stream, and the
 * same XML deflated at level 1. Rows are made as they are written, so that the heap is the writer's.
 */
public final class Extracts {
    private static final int ROWS = Integer.getInteger("odd.rows", 200_000);
    private static final int ROUNDS = Integer.getInteger("odd.rounds", 5);

    private Extracts() {}

    private interface Work {
        void run() throws IOException;
    }

    public static void main(String[] arguments) throws IOException {
        Path folder = Files.createTempDirectory("odd-extracts");
        Path csv = folder.resolve("x.csv");
        Path xlsx = folder.resolve("x.xlsx");
        Path xml = folder.resolve("x.xml");
        Path plain = folder.resolve("plain");
        var extract = extract();
        var style = new CsvExtract.Style(',', '.', StandardCharsets.UTF_8, true);
        Work writeCsv = () -> {
            try (var out = Files.newOutputStream(csv)) {
                CsvExtract.write(extract, style, out);
            }
        };
        Work copy = () -> {
            try (var in = Files.newInputStream(csv);
                    var out = Files.newOutputStream(plain)) {
                in.transferTo(out);
            }
        };
        Work writeXlsx = () -> {
            try (var out = new BufferedOutputStream(Files.newOutputStream(xlsx))) {
                XlsxExtract.write(extract, out);
            }
        };
        Work deflate = () -> {
            var deflater = new Deflater(1);
            try (var in = new BufferedInputStream(Files.newInputStream(xml));
                    var out = new DeflaterOutputStream(
                            new BufferedOutputStream(Files.newOutputStream(plain)), deflater, 1 << 16)) {
                in.transferTo(out);
            }
            deflater.end();
        };
        writeCsv.run();
        writeXlsx.run();
        unpack(xlsx, xml);
        pair("CSV", writeCsv, "the same " + Files.size(csv) / 1024 + " kB through a plain stream", copy);
        pair("XLSX", writeXlsx, "deflate of the same " + Files.size(xml) / 1024 + " kB of XML, level 1", deflate);
        System.out.printf(
                Locale.ROOT, "heap at most %d MB%n", Runtime.getRuntime().maxMemory() / (1024 * 1024));
        for (Path file : List.of(csv, xlsx, xml, plain)) Files.deleteIfExists(file);
        Files.delete(folder);
    }

    private static void pair(String name, Work work, String limitName, Work limit) throws IOException {
        long[] mine = new long[ROUNDS];
        long[] limits = new long[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            mine[i] = timed(work);
            limits[i] = timed(limit);
        }
        Arrays.sort(mine);
        Arrays.sort(limits);
        double ratio = (double) mine[ROUNDS / 2] / limits[ROUNDS / 2];
        System.out.printf(
                Locale.ROOT,
                "%s, %d rows of 12: %d ms; %s: %d ms; %.1f x%n",
                name,
                ROWS,
                mine[ROUNDS / 2] / 1_000_000,
                limitName,
                limits[ROUNDS / 2] / 1_000_000,
                ratio);
    }

    private static long timed(Work work) throws IOException {
        long began = System.nanoTime();
        work.run();
        return System.nanoTime() - began;
    }

    private static void unpack(Path xlsx, Path xml) throws IOException {
        try (var zip = new ZipFile(xlsx.toFile());
                InputStream in = zip.getInputStream(zip.getEntry("xl/worksheets/sheet1.xml"));
                OutputStream out = Files.newOutputStream(xml)) {
            in.transferTo(out);
        }
    }

    private static Extract extract() {
        var columns = new ArrayList<Extract.Column>();
        var types = List.of(
                Type.TEXT,
                Type.TEXT,
                Type.NUMBER,
                Type.NUMBER,
                Type.DATE,
                Type.INSTANT,
                Type.TEXT,
                Type.NUMBER,
                Type.TRUTH,
                Type.TEXT,
                Type.NUMBER,
                Type.TEXT);
        for (int i = 0; i < types.size(); i++)
            columns.add(Extract.Column.of("column_" + i, "Column " + i, null, types.get(i)));
        var rows = new AbstractList<Extract.Row>() {
            @Override
            public Extract.Row get(int index) {
                return row(index);
            }

            @Override
            public int size() {
                return ROWS;
            }
        };
        return new Extract(ZoneId.of("Europe/Oslo"), Language.EN, columns, Extract.Arrangement.USUAL, rows);
    }

    private static Extract.Row row(int index) {
        var cells = new ArrayList<Extract.Cell>(12);
        Instant when = Instant.ofEpochSecond(1_790_000_000L + index * 60L);
        for (Object value : List.of(
                "SK-" + index,
                "Holm – Varsund",
                (long) (index % 90),
                BigDecimal.valueOf(index, 2),
                LocalDate.ofEpochDay(20_000 + index % 900),
                when,
                "Tjelden",
                (long) index,
                index % 2 == 0,
                "a reason that was written by hand",
                BigDecimal.valueOf(index * 7L, 3),
                "sailed")) cells.add(Extract.Cell.plain(value));
        return new Extract.Row(Severity.WARNING, Set.of(), cells);
    }
}
