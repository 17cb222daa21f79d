package dev.oddsentry.extracts.page;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.SeverityLooks;
import java.awt.Font;
import java.awt.FontFormatException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * Which letters the fonts of a PDF have. Those that they lack, and those of scripts that are written from right to left or joined, which would stand in the
 * wrong order, become a box.
 */
final class PdfLetters {
    private static final int BOX = 0x25a1;
    private static final Font FONT = font();

    private PdfLetters() {}

    private static Font font() {
        try (InputStream font =
                Objects.requireNonNull(PdfLetters.class.getResourceAsStream("DejaVuSans.ttf"), "DejaVuSans.ttf")) {
            return Font.createFont(Font.TRUETYPE_FONT, font);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (FontFormatException broken) {
            throw new IllegalStateException(broken);
        }
    }

    /** The same where all of it can be shown. */
    static Extract readable(Extract extract) {
        boolean all =
                extract.rows().stream().flatMap(row -> row.cells().stream()).allMatch(PdfLetters::isReadable)
                        && extract.columns().stream()
                                .allMatch(column -> isReadable(column.label())
                                        && column.words().values().stream().allMatch(PdfLetters::isReadable))
                        && extract.arrangement().severities().all().stream()
                                .allMatch(look -> look.word() == null || isReadable(look.word()));
        if (all) return extract;
        return new Extract(
                extract.zone(),
                extract.language(),
                extract.columns().stream().map(PdfLetters::readable).toList(),
                extract.arrangement().with(readable(extract.arrangement().severities())),
                extract.rows().stream().map(PdfLetters::readable).toList());
    }

    private static Extract.Column readable(Extract.Column column) {
        var words = new LinkedHashMap<String, String>();
        column.words().forEach((code, word) -> words.put(code, readable(word)));
        return new Extract.Column(
                column.name(),
                readable(column.label()),
                column.unit(),
                column.type(),
                column.format(),
                words,
                column.width(),
                column.total());
    }

    private static SeverityLooks readable(SeverityLooks looks) {
        return new SeverityLooks(looks.all().stream()
                .map(look -> new SeverityLooks.Look(
                        look.level(), look.word() == null ? null : readable(look.word()), look.colour()))
                .toList());
    }

    private static Extract.Row readable(Extract.Row row) {
        List<Extract.Cell> cells = row.cells().stream()
                .map(cell -> isReadable(cell)
                        ? cell
                        : new Extract.Cell(readable(cell.value()), cell.marked(), readable(cell.was()), cell.link()))
                .toList();
        return new Extract.Row(row.severity(), row.kinds(), cells, row.link(), row.since());
    }

    private static @Nullable Object readable(@Nullable Object value) {
        return value instanceof String text ? readable(text) : value;
    }

    static String readable(String text) {
        if (isReadable(text)) return text;
        return text.codePoints()
                .map(point -> isShown(point) ? point : BOX)
                .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                .toString();
    }

    private static boolean isReadable(Extract.Cell cell) {
        return (!(cell.value() instanceof String value) || isReadable(value))
                && (!(cell.was() instanceof String was) || isReadable(was));
    }

    private static boolean isReadable(String text) {
        return text.codePoints().allMatch(PdfLetters::isShown);
    }

    private static boolean isShown(int point) {
        if (point < 0x250) return true;
        return switch (Character.getDirectionality(point)) {
            case Character.DIRECTIONALITY_RIGHT_TO_LEFT, Character.DIRECTIONALITY_RIGHT_TO_LEFT_ARABIC -> false;
            default ->
                FONT.canDisplay(point) || Character.isWhitespace(point) || Character.getType(point) == Character.FORMAT;
        };
    }
}
