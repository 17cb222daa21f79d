package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.DeliveryDefinition.Attachment;
import dev.oddsentry.core.definition.DeliveryDefinition.Csv;
import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.definition.DeliveryDefinition.Paper;
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
                    "paper", FieldTypes.choice(Paper.values()), Attachment::paper, "The paper size of a PDF.")
            .usual(Paper.A4);

    static final FieldType<List<Attachment>> LIST = FieldTypes.parts(PART, "format", AttachmentFields::read);

    private AttachmentFields() {}

    private static Attachment read(Fields item) {
        return new Attachment(FORMAT.in(item), ROWS.in(item), FILE.orNull(item), csv(item), PAPER.in(item));
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
