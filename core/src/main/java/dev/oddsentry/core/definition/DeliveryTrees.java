package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.DeliveryDefinition.AlsoSent;
import dev.oddsentry.core.definition.DeliveryDefinition.Attachment;
import dev.oddsentry.core.definition.DeliveryDefinition.Csv;
import dev.oddsentry.core.definition.DeliveryDefinition.Escalation;
import dev.oddsentry.core.definition.DeliveryDefinition.Packing;
import dev.oddsentry.core.definition.DeliveryDefinition.Paper;
import dev.oddsentry.core.definition.DeliveryDefinition.Show;
import dev.oddsentry.core.definition.DeliveryDefinition.Thread;
import dev.oddsentry.core.extract.ExtraColumn;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.MinimumDuration;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;

/** Deliveries and layouts as ordered trees. */
final class DeliveryTrees {
    private DeliveryTrees() {}

    static Map<String, Object> of(DeliveryDefinition delivery) {
        var recipients = delivery.recipients();
        var tree = new Tree()
                .put("to", recipients.to())
                .put("cc", recipients.cc())
                .put("bcc", recipients.bcc())
                .put("reply_to", recipients.replyTo());
        var split = delivery.split();
        if (split != null) {
            tree.put("split_by", split.by())
                    .put("split_to", new LinkedHashMap<String, Object>(split.to()))
                    .put("split_from", split.from())
                    .put("split_address", split.address());
        }
        tree.put("show", delivery.show() == Show.ROWS ? null : delivery.show().code());
        var layout = delivery.layout();
        if (delivery.sharedLayout() != null) tree.put("layout", delivery.sharedLayout());
        else if (layout.isOfBareColumns())
            tree.put(
                    "columns",
                    layout.columns().stream()
                            .map(LayoutDefinition.Shown::column)
                            .toList());
        else tree.put("layout", of(layout));
        // An empty list says something here: nothing is attached.
        tree.fields.put(
                "attach", delivery.attachments().stream().map(DeliveryTrees::of).toList());
        tree.put(
                "pack",
                delivery.packing() == Packing.NOT ? null : delivery.packing().code());
        var texts = delivery.texts();
        return tree.put(
                        "language",
                        texts.language() == Language.EN
                                ? null
                                : texts.language().code())
                .put("subject", texts.subject())
                .put("opening", texts.opening())
                .put("send_when_quiet", texts.allQuiet() ? true : null)
                .put("max_per_hour", delivery.manners().mostAnHour())
                .put("allow_unsubscribe", delivery.manners().mayLeave() ? true : null)
                .put(
                        "thread",
                        delivery.manners().thread() == Thread.NONE
                                ? null
                                : delivery.manners().thread().code())
                .put("chart", delivery.chart())
                .put("escalate", delivery.escalation() == null ? null : of(delivery.escalation()))
                .put(
                        "also_send",
                        delivery.alsoSent().stream().map(DeliveryTrees::of).toList())
                .fields;
    }

    private static Object of(Escalation escalation) {
        return new Tree()
                .put("after", MinimumDuration.text(escalation.after()))
                .put("to", escalation.to())
                .put(
                        "severity",
                        escalation.atLeast() == Severity.NOTICE
                                ? null
                                : escalation.atLeast().word())
                .fields;
    }

    private static Object of(AlsoSent also) {
        var tree = new Tree().put("query", also.query()).put("layout", also.layout());
        // An empty list says something here too.
        tree.fields.put(
                "attach", also.attachments().stream().map(DeliveryTrees::of).toList());
        return tree.put("rows_in_mail", also.rowsInMail() == 0 ? null : also.rowsInMail()).fields;
    }

    private static Object of(Attachment attachment) {
        if (attachment.equals(Attachment.of(attachment.format())))
            return attachment.format().code();
        var csv = attachment.csv();
        return new Tree()
                .put("format", attachment.format().code())
                .put("file", attachment.file())
                .put(
                        "delimiter",
                        csv.delimiter() == Csv.USUAL.delimiter()
                                ? null
                                : csv.delimiter() == '\t' ? "tab" : String.valueOf(csv.delimiter()))
                .put("decimal", csv.decimal() == Csv.USUAL.decimal() ? null : String.valueOf(csv.decimal()))
                .put("encoding", csv.encoding().equals(Csv.USUAL.encoding()) ? null : csv.encoding())
                .put("byte_order_mark", csv.mark() == csv.encoding().startsWith("UTF-") ? null : csv.mark())
                .put(
                        "paper",
                        attachment.paper() == Paper.A4
                                ? null
                                : attachment.paper().code())
                .fields;
    }

    static Map<String, Object> of(LayoutDefinition layout) {
        var tree = new Tree()
                .put("columns", layout.columns().stream().map(DeliveryTrees::of).toList())
                .put(
                        "sort",
                        layout.sort().stream()
                                .map(sort -> sort.column() + (sort.descending() ? " desc" : ""))
                                .toList())
                .put("group_by", layout.groupBy())
                .put("rows_in_mail", layout.rowsInMail())
                .put("still_open", layout.stillOpen() ? true : null)
                .put("fixed", layout.fixed() ? true : null)
                .put("sheet", layout.sheet());
        boolean usual = layout.besides().equals(layout.fixed() ? Set.of() : ExtraColumn.ALL);
        // An empty list says something here: only the columns stand in the extract.
        if (!usual)
            tree.fields.put(
                    "extra_columns",
                    layout.besides().stream().sorted().map(ExtraColumn::code).toList());
        return tree.fields;
    }

    private static Object of(LayoutDefinition.Shown shown) {
        if (shown.isBare()) return shown.column();
        return new Tree()
                .put("column", shown.column())
                .put("label", shown.label())
                .put("format", shown.format() == null ? null : shown.format().pattern())
                .put("width", shown.width())
                .put("total", shown.total() == null ? null : shown.total().code())
                .fields;
    }
}
