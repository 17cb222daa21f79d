package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.DeliveryDefinition.AlsoSent;
import dev.oddsentry.core.definition.DeliveryDefinition.Attachment;
import dev.oddsentry.core.definition.DeliveryDefinition.Csv;
import dev.oddsentry.core.definition.DeliveryDefinition.Escalation;
import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.definition.DeliveryDefinition.Manners;
import dev.oddsentry.core.definition.DeliveryDefinition.Packing;
import dev.oddsentry.core.definition.DeliveryDefinition.Paper;
import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;
import dev.oddsentry.core.definition.DeliveryDefinition.Show;
import dev.oddsentry.core.definition.DeliveryDefinition.Split;
import dev.oddsentry.core.definition.DeliveryDefinition.Texts;
import dev.oddsentry.core.definition.DeliveryDefinition.Thread;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Span;
import java.nio.charset.Charset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** Reads who gets which part of the extract, and how. */
final class DeliveryReader {
    private static final int MOST_AN_HOUR = 3_600;
    private static final int MOST_ROWS_OF_ANOTHER = 200;

    private DeliveryReader() {}

    static DeliveryDefinition read(Fields fields) {
        var delivery = new DeliveryDefinition(
                new Recipients(
                        people(fields, "to"), people(fields, "cc"), people(fields, "bcc"), people(fields, "reply_to")),
                layout(fields),
                fields.isMapping("layout")
                        ? null
                        : fields.parsed("layout", CommonFields::checkName).orElse(null),
                attachments(fields),
                fields.choice("pack", Packing.values()).orElse(Packing.NOT),
                fields.choice("show", Show.values()).orElse(Show.ROWS),
                new Texts(
                        fields.choice("language", Language.values()).orElse(Language.EN),
                        fields.parsed("subject", Template::check).orElse(null),
                        fields.parsed("opening", Template::check).orElse(null),
                        fields.truth("send_when_quiet").orElse(false)),
                new Manners(
                        fields.parsed("max_per_hour", text -> LayoutReader.whole(text, MOST_AN_HOUR))
                                .orElse(null),
                        fields.truth("allow_unsubscribe").orElse(false),
                        fields.choice("thread", Thread.values()).orElse(Thread.NONE)),
                fields.text("chart").orElse(null),
                split(fields),
                escalation(fields),
                alsoSent(fields));
        fields.refuseOthers();
        return delivery;
    }

    /** Addresses and names of teams; one text may have several, as they are typed in a mail program. */
    static List<String> people(Fields fields, String name) {
        var people = new ArrayList<String>();
        fields.checkedTexts(name, text -> people.addAll(MailAddress.list(text)));
        return people.stream().distinct().toList();
    }

    /** Bare columns may stand beside the other fields. */
    private static LayoutDefinition layout(Fields fields) {
        var columns = fields.texts("columns");
        if (!fields.has("layout")) return LayoutDefinition.of(columns);
        if (!columns.isEmpty())
            fields.refuse("columns", "columns and layout cannot be combined; list the columns in the layout");
        if (!fields.isMapping("layout")) return LayoutDefinition.USUAL;
        Fields own = fields.fields("layout");
        var layout = LayoutReader.read(own);
        own.refuseOthers();
        return layout;
    }

    private static List<Attachment> attachments(Fields fields) {
        // As documents had it before there were other formats.
        boolean csv = fields.truth("attach csv").orElse(true);
        if (!fields.has("attach")) return csv ? List.of(Attachment.of(Format.CSV)) : List.of();
        return attached(fields);
    }

    private static List<Attachment> attached(Fields fields) {
        return fields.fieldsOfItems("attach", "format").stream()
                .map(DeliveryReader::attachment)
                .toList();
    }

    private static Attachment attachment(Fields item) {
        var attachment = new Attachment(
                item.choice("format", Format.values()).orElse(Format.CSV),
                item.parsed("file", Template::check).orElse(null),
                csv(item),
                item.choice("paper", Paper.values()).orElse(Paper.A4));
        item.refuseOthers();
        return attachment;
    }

    private static Csv csv(Fields item) {
        String encoding = item.parsed("encoding", DeliveryReader::encoding).orElse(Csv.USUAL.encoding());
        boolean unicode = encoding.startsWith("UTF-");
        var delimiter = item.parsed("delimiter", text -> one(text, ",;\t|", "one of , ; | or a tab"))
                .orElse(Csv.USUAL.delimiter());
        var decimal = item.parsed("decimal", text -> one(text, ".,", "a point or a comma"))
                .orElse(Csv.USUAL.decimal());
        return new Csv(
                delimiter, decimal, encoding, item.truth("byte_order_mark").orElse(unicode) && unicode);
    }

    private static Character one(String text, String among, String words) {
        String sign = text.equals("\\t") || text.equals("tab") ? "\t" : text;
        if (sign.length() == 1 && among.contains(sign)) return sign.charAt(0);
        throw refused("\"" + text + "\" is not " + words);
    }

    private static String encoding(String text) {
        try {
            return Charset.forName(text.strip()).name();
        } catch (IllegalArgumentException unknown) {
            throw refused("\"" + text + "\" is not an encoding. Examples: UTF-8, ISO-8859-1, windows-1252");
        }
    }

    private static @Nullable Split split(Fields fields) {
        String by = fields.text("split_by").orElse(null);
        var address = fields.text("split_address").orElse(null);
        var from = fields.parsed("split_from", CommonFields::checkName).orElse(null);
        var named = fields.fields("split_to");
        var to = new LinkedHashMap<String, List<String>>();
        for (String value : named.freeNames()) to.put(value, people(named, value));
        if (by != null) return new Split(by, to, from, address);
        if (from != null || address != null || !to.isEmpty()) fields.requiredText("split_by", "terminal");
        return null;
    }

    private static @Nullable Escalation escalation(Fields fields) {
        if (!fields.has("escalate")) return null;
        Fields own = fields.fields("escalate");
        var after = own.parsed("after", DeliveryReader::elapsed).orElse(null);
        var escalation = new Escalation(
                after == null ? Span.ZERO : after,
                people(own, "to"),
                own.choice("severity", Severity.values()).orElse(Severity.NOTICE));
        if (after == null && !own.has("after")) own.refuseEmpty("after", "4 hours");
        if (escalation.to().isEmpty()) own.refuseEmpty("to", "[lead@skerry.example]");
        own.refuseOthers();
        return escalation;
    }

    private static Span elapsed(String text) {
        try {
            if (MinimumDuration.parse(text) instanceof MinimumDuration.Elapsed elapsed) return elapsed.time();
        } catch (IllegalArgumentException notOne) {
            throw refused(String.valueOf(notOne.getMessage()));
        }
        throw refused("escalate after takes a time, such as 4 hours, not \"" + text + "\"");
    }

    private static List<AlsoSent> alsoSent(Fields fields) {
        if (!fields.has("also_send")) return List.of();
        return fields.fieldsOfItems("also_send", "query").stream()
                .map(item -> {
                    item.requiredText("query", "sailings-of-the-day");
                    var also = new AlsoSent(
                            item.parsed("query", CommonFields::checkName).orElse(""),
                            item.parsed("layout", CommonFields::checkName).orElse(null),
                            item.has("attach") ? attached(item) : List.of(Attachment.of(Format.XLSX)),
                            item.parsed("rows_in_mail", text -> LayoutReader.whole(text, MOST_ROWS_OF_ANOTHER))
                                    .orElse(0));
                    item.refuseOthers();
                    return also;
                })
                .toList();
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
