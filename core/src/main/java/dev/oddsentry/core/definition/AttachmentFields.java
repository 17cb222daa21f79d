package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Attachment.Csv;
import dev.oddsentry.core.definition.Attachment.Orientation;
import dev.oddsentry.core.definition.Attachment.Page;
import dev.oddsentry.core.definition.Attachment.Paper;
import dev.oddsentry.core.definition.Attachment.Sheet;
import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldType;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.extract.FileRows;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.nio.charset.Charset;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Files of a message. */
final class AttachmentFields {
    static final ScalarType<String> TEMPLATE = FieldTypes.text("text with fields such as `{{date}}`", Template::check);

    /** The page number stands in it. */
    private static final int NARROWEST_MARGIN = 8;

    private static final int WIDEST_MARGIN = 50;
    private static final int MOST_FROZEN = 10;

    private static final Part<Attachment> PART = new Part<>("attachment", "A file of a message.");
    private static final Field<Attachment, Format> FORMAT = PART.field(
                    "format", FieldTypes.choice(Format.values()), Attachment::format, "The format of the file.")
            .usual(Format.CSV)
            .alwaysWritten();
    private static final Field<Attachment, FileRows> ROWS = PART.field(
                    "rows",
                    FieldTypes.choice(FileRows.values()),
                    Attachment::rows,
                    "The rows of the file: the `updates` of the message, all `open` findings, or `all` rows of the query with the exceptions marked.")
            .usual(FileRows.OPEN);
    private static final Field<Attachment, String> FILE = PART.field(
                    "file",
                    TEMPLATE,
                    Attachment::file,
                    "The name of the file without its ending: `rule`, `date`, `time`, `split` and `copy` are its fields.")
            .usually("the rule's name, the date, and whose part it is");
    private static final Field<Attachment, Character> DELIMITER = PART.field(
                    "delimiter",
                    new ScalarType<>(
                            Shape.text("`,` `;` `|` or `tab`"),
                            text -> sign(text, ",;\t|", "one of , ; | or a tab"),
                            sign -> sign == '\t' ? "tab" : String.valueOf(sign)),
                    attachment -> attachment.csv().delimiter(),
                    "Between the values of a CSV file.")
            .usual(Csv.USUAL.delimiter());
    private static final Field<Attachment, Character> DECIMAL = PART.field(
                    "decimal",
                    new ScalarType<>(
                            Shape.text("`.` or `,`"), text -> sign(text, ".,", "a point or a comma"), String::valueOf),
                    attachment -> attachment.csv().decimal(),
                    "The decimal sign of a CSV file.")
            .usual(Csv.USUAL.decimal());
    private static final Field<Attachment, String> ENCODING = PART.field(
                    "encoding",
                    FieldTypes.text("IANA name, such as `windows-1252`", AttachmentFields::encoding),
                    attachment -> attachment.csv().encoding(),
                    "The encoding of a CSV file.")
            .usual(Csv.USUAL.encoding());
    private static final Field<Attachment, Boolean> BYTE_ORDER_MARK = PART.field(
                    "byte_order_mark",
                    FieldTypes.TRUTH,
                    AttachmentFields::byteOrderMark,
                    "Whether a CSV file starts with a byte-order mark, by which spreadsheets know its encoding.")
            .usually("`true` for encodings of Unicode");
    private static final Field<Attachment, Paper> PAPER = PART.field(
                    "paper",
                    FieldTypes.choice(Paper.values()),
                    attachment -> attachment.page().paper(),
                    "The paper size of a PDF, and of a workbook when it is printed.")
            .usual(Page.USUAL.paper());
    private static final Field<Attachment, Orientation> ORIENTATION = PART.field(
                    "orientation",
                    FieldTypes.choice(Orientation.values()),
                    attachment -> attachment.page().orientation(),
                    "Whether a PDF or a printed workbook is upright or lies on its side.")
            .usually("the one in which the columns fit");
    private static final Field<Attachment, Integer> MARGIN = PART.field(
                    "margin",
                    FieldTypes.whole(NARROWEST_MARGIN, WIDEST_MARGIN),
                    attachment -> attachment.page().margin(),
                    "The margins of a PDF, in millimetres.")
            .usual(Page.USUAL.margin());
    private static final Field<Attachment, String> HEADER = PART.field(
                    "header",
                    TEMPLATE,
                    attachment -> attachment.page().header(),
                    "A line at the top of each page of a PDF, with the same fields as the name of the file.")
            .usually("none");
    private static final Field<Attachment, String> FOOTER = PART.field(
                    "footer",
                    TEMPLATE,
                    attachment -> attachment.page().footer(),
                    "A line at the bottom of each page of a PDF, beside the page number, with the same fields.")
            .usually("the title");
    private static final Field<Attachment, Integer> FROZEN_COLUMNS = PART.field(
                    "frozen_columns",
                    FieldTypes.whole(0, MOST_FROZEN),
                    attachment -> attachment.sheet().frozenColumns(),
                    "Columns of a workbook that stay in sight on the left; headings always do.")
            .usual(Sheet.USUAL.frozenColumns());
    private static final Field<Attachment, Boolean> FILTER = PART.field(
                    "filter",
                    FieldTypes.TRUTH,
                    attachment -> attachment.sheet().filter(),
                    "Whether the headings of a workbook have filters; never with groups or totals.")
            .usual(Sheet.USUAL.filter());

    static final FieldType<List<Attachment>> LIST = FieldTypes.parts(PART, "format", AttachmentFields::read);

    private AttachmentFields() {}

    private static Attachment read(Fields item) {
        return new Attachment(FORMAT.in(item), ROWS.in(item), FILE.orNull(item), csv(item), page(item), sheet(item));
    }

    private static Page page(Fields item) {
        return new Page(
                PAPER.in(item), ORIENTATION.orNull(item), MARGIN.in(item), HEADER.orNull(item), FOOTER.orNull(item));
    }

    private static Sheet sheet(Fields item) {
        return new Sheet(FROZEN_COLUMNS.in(item), FILTER.in(item));
    }

    private static Csv csv(Fields item) {
        String encoding = ENCODING.in(item);
        boolean unicode = isUnicode(encoding);
        return new Csv(
                DELIMITER.in(item),
                DECIMAL.in(item),
                encoding,
                BYTE_ORDER_MARK.read(item).orElse(unicode) && unicode);
    }

    private static @Nullable Boolean byteOrderMark(Attachment attachment) {
        var csv = attachment.csv();
        return csv.mark() == isUnicode(csv.encoding()) ? null : csv.mark();
    }

    private static boolean isUnicode(String encoding) {
        return encoding.startsWith("UTF-");
    }

    private static char sign(String text, String among, String words) {
        String sign = text.equals("\\t") || text.equals("tab") ? "\t" : text;
        if (sign.length() == 1 && among.contains(sign)) return sign.charAt(0);
        throw InvalidDefinitionException.of("\"" + text + "\" is not " + words);
    }

    private static String encoding(String text) {
        try {
            return Charset.forName(text.strip()).name();
        } catch (IllegalArgumentException unknown) {
            throw InvalidDefinitionException.of(
                    "\"" + text + "\" is not an encoding. Examples: UTF-8, ISO-8859-1, windows-1252");
        }
    }
}
