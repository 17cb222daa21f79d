package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.DeliveryDefinition.AlsoSent;
import dev.oddsentry.core.definition.DeliveryDefinition.Escalation;
import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.definition.DeliveryDefinition.MessageOptions;
import dev.oddsentry.core.definition.DeliveryDefinition.Packing;
import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;
import dev.oddsentry.core.definition.DeliveryDefinition.Show;
import dev.oddsentry.core.definition.DeliveryDefinition.Split;
import dev.oddsentry.core.definition.DeliveryDefinition.Texts;
import dev.oddsentry.core.definition.DeliveryDefinition.Thread;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldType;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.RowsAs;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.time.Span;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Who gets which part of the extract, and how. */
final class DeliveryFields {
    private static final int MOST_AN_HOUR = 3_600;
    private static final int MOST_ROWS_OF_ANOTHER = 200;

    /** One text may have several, as they are typed in a mail program. */
    static final FieldType<List<String>> PEOPLE = FieldType.of(
            FieldTypes.text("address, `team: NAME`, `person: LOGIN` or `list: NAME`")
                    .list()
                    .shape(),
            (fields, name) -> fields.has(name) ? Optional.of(people(fields, name)) : Optional.empty(),
            people -> people);

    private static final Part<Split> SPLIT = new Part<>("split", "One audience for each value of a column.");
    private static final Field<Split, String> SPLIT_BY = SPLIT.field(
            "split_by",
            FieldTypes.text("column"),
            Split::by,
            "One audience for each value, which gets only its findings.");
    private static final Field<Split, Map<String, List<String>>> SPLIT_TO = SPLIT.field(
                    "split_to", FieldTypes.byName(PEOPLE), Split::to, "Recipients by value.")
            .usual(Map.of());
    private static final Field<Split, String> SPLIT_FROM = SPLIT.field(
            "split_from",
            FieldTypes.nameOf("query"),
            Split::from,
            "A query with the column of the split and a column `address`, for values that `split_to` does not name.");
    private static final Field<Split, String> SPLIT_ADDRESS = SPLIT.field(
            "split_address",
            FieldTypes.text("column"),
            Split::address,
            "A column with addresses, for values that neither names.");

    private static final Part<Escalation> ESCALATION =
            new Part<>("escalate", "Sends findings that nobody takes, snoozes or accepts in time to others, once.");
    private static final Field<Escalation, Span> ESCALATE_AFTER = ESCALATION
            .field("after", Durations.SPAN, Escalation::after, "The time since the finding was reported.")
            .required("4 hours");
    private static final Field<Escalation, List<String>> ESCALATE_TO = ESCALATION
            .field("to", PEOPLE, Escalation::to, "The further recipients.")
            .required("[lead@skerry.example]");
    private static final Field<Escalation, Severity> ESCALATE_SEVERITY = ESCALATION
            .field(
                    "severity",
                    SeverityFields.SEVERITY,
                    Escalation::minimumSeverity,
                    "The lowest severity that is escalated.")
            .usual(Severity.NOTICE);

    private static final Part<AlsoSent> ALSO_SENT = new Part<>(
            "also_send", "Rows of another query, run with this rule's values for parameters of the same names.");
    private static final Field<AlsoSent, String> ALSO_QUERY = ALSO_SENT
            .field("query", FieldTypes.nameOf("query"), AlsoSent::query, "The other query.")
            .required("sailings-of-the-day");
    private static final Field<AlsoSent, String> ALSO_LAYOUT = ALSO_SENT
            .field("layout", FieldTypes.nameOf("layout"), AlsoSent::layout, "A shared layout.")
            .usually("all columns of the query");
    private static final Field<AlsoSent, List<Attachment>> ALSO_ATTACH = ALSO_SENT
            .field("attach", AttachmentFields.LIST, AlsoSent::attachments, "Files with the rows; `[]`: none.")
            .usual(List.of(Attachment.of(Format.XLSX)))
            .usually("`xlsx`")
            .alwaysWritten();
    private static final Field<AlsoSent, Integer> ALSO_ROWS_IN_MAIL = ALSO_SENT
            .field(
                    "rows_in_mail",
                    FieldTypes.whole(0, MOST_ROWS_OF_ANOTHER),
                    AlsoSent::rowsInMail,
                    "Rows in the message.")
            .usual(0);

    private static final Part<Variant> VARIANT = new Part<>(
            "variant",
            "What some of the recipients get differently. What it does not say is as for the others. A recipient in two variants gets the first.");
    private static final Field<Variant, List<String>> VARIANT_FOR = VARIANT.field(
                    "for", PEOPLE, Variant::recipients, "Recipients among those of the rule.")
            .required("[lead@skerry.example]");
    private static final Field<Variant, String> VARIANT_SUBJECT = VARIANT.field(
                    "subject", AttachmentFields.TEMPLATE, Variant::subject, "The subject of the message.")
            .usually("as for the others");
    private static final Field<Variant, String> VARIANT_OPENING = VARIANT.field(
                    "opening", AttachmentFields.TEMPLATE, Variant::opening, "A text above the rows.")
            .usually("as for the others");
    private static final Field<Variant, String> VARIANT_CLOSING = VARIANT.field(
                    "closing", AttachmentFields.TEMPLATE, Variant::closing, "A text below the rows.")
            .usually("as for the others");
    private static final Field<Variant, Show> VARIANT_SHOW = VARIANT.field(
                    "show",
                    FieldTypes.choice(Show.values()),
                    Variant::show,
                    "Whether the message has rows and files, or only a link to them behind log-in.")
            .usually("as for the others");
    private static final Field<Variant, RowsAs> VARIANT_ROWS_AS = VARIANT.field(
                    "rows_as",
                    FieldTypes.choice(RowsAs.values()),
                    Variant::rowsAs,
                    "How the rows appear in the message.")
            .usually("as for the others");
    private static final Field<Variant, List<Attachment>> VARIANT_ATTACH = VARIANT.field(
                    "attach", AttachmentFields.LIST, Variant::attachments, "Files; `[]`: none.")
            .usually("as for the others")
            .alwaysWritten();

    static final Part<DeliveryDefinition> PART =
            new Part<>("delivery", "Whom the rule mails, and what the message looks like.");

    private static final Field<DeliveryDefinition, List<String>> TO = PART.field(
                    "to",
                    PEOPLE,
                    delivery -> delivery.recipients().to(),
                    "The recipients; in a split rule those of values without recipients of their own.")
            .usual(List.of());
    private static final Field<DeliveryDefinition, List<String>> CC = PART.field(
                    "cc", PEOPLE, delivery -> delivery.recipients().cc(), "Recipients in copy.")
            .usual(List.of());
    private static final Field<DeliveryDefinition, List<String>> BCC = PART.field(
                    "bcc", PEOPLE, delivery -> delivery.recipients().bcc(), "Hidden recipients.")
            .usual(List.of());
    private static final Field<DeliveryDefinition, List<String>> REPLY_TO = PART.field(
                    "reply_to", PEOPLE, delivery -> delivery.recipients().replyTo(), "Where answers go.")
            .usual(List.of())
            .usually("the owning team");

    static {
        PART.include(SPLIT, DeliveryDefinition::split);
    }

    private static final Field<DeliveryDefinition, Show> SHOW = PART.field(
                    "show",
                    FieldTypes.choice(Show.values()),
                    DeliveryDefinition::show,
                    "Whether the message has rows and files, or only a link to them behind log-in.")
            .usual(Show.ROWS);
    private static final Field<DeliveryDefinition, List<String>> COLUMNS = PART.field(
                    "columns",
                    FieldTypes.text("column").list(),
                    DeliveryFields::bareColumns,
                    "The columns of the message and its files. The first ones name the finding. A `layout` says more.")
            .usual(List.of())
            .usually("all columns of the query");
    private static final Field<DeliveryDefinition, ChosenLayout> LAYOUT = PART.field(
            "layout",
            layoutType(),
            DeliveryFields::chosenLayout,
            "How the extract looks: a shared layout, or one of its own.");
    private static final Field<DeliveryDefinition, List<Attachment>> ATTACH = PART.field(
                    "attach",
                    AttachmentFields.LIST,
                    DeliveryDefinition::attachments,
                    "Files with all open findings; `[]`: none.")
            .usual(List.of(Attachment.of(Format.CSV)))
            .usually("`csv`")
            .alwaysWritten();
    private static final Field<DeliveryDefinition, Packing> PACK = PART.field(
                    "pack",
                    FieldTypes.choice(Packing.values()),
                    DeliveryDefinition::packing,
                    "Whether files are packed, and with the password of `odd set-file-password` encrypted.")
            .usual(Packing.NOT);
    private static final Field<DeliveryDefinition, Language> LANGUAGE = PART.field(
                    "language",
                    FieldTypes.choice(Language.values()),
                    delivery -> delivery.texts().language(),
                    "The language of messages and files, except for recipients with a language of their own.")
            .usual(Language.EN);
    private static final Field<DeliveryDefinition, String> SUBJECT = PART.field(
                    "subject",
                    AttachmentFields.TEMPLATE,
                    delivery -> delivery.texts().subject(),
                    "The subject of the message.")
            .usually("number of findings and title");
    private static final Field<DeliveryDefinition, String> OPENING = PART.field(
            "opening", AttachmentFields.TEMPLATE, delivery -> delivery.texts().opening(), "A text above the rows.");
    private static final Field<DeliveryDefinition, String> CLOSING = PART.field(
            "closing", AttachmentFields.TEMPLATE, delivery -> delivery.texts().closing(), "A text below the rows.");
    private static final Field<DeliveryDefinition, Boolean> SEND_WHEN_QUIET = PART.field(
                    "send_when_quiet",
                    FieldTypes.TRUTH,
                    delivery -> delivery.texts().sendWhenQuiet(),
                    "Also sends a message when nothing is new.")
            .usual(false);
    private static final Field<DeliveryDefinition, Sender> SENDER = PART.field(
                    "sender",
                    new ScalarType<>(Shape.text("name, address, or `name <address>`"), Sender::of, Sender::text),
                    delivery -> delivery.options().sender(),
                    "Who the message is from. The operator says which addresses are allowed.")
            .usually("the sender of the installation");
    private static final Field<DeliveryDefinition, Severity> SEND_FROM = PART.field(
                    "send_from",
                    SeverityFields.SEVERITY,
                    delivery -> delivery.options().sendFrom(),
                    "Sends a message only if it has an update of this severity or higher; less severe updates wait for the next message.")
            .usually("every update is sent");
    private static final Field<DeliveryDefinition, Integer> MAX_PER_HOUR = PART.field(
                    "max_per_hour",
                    FieldTypes.whole(1, MOST_AN_HOUR),
                    delivery -> delivery.options().maxPerHour(),
                    "Max messages per hour and audience; later updates wait for the next message.")
            .usually(String.valueOf(DeliveryDefinition.USUAL_MAX_PER_HOUR));
    private static final Field<DeliveryDefinition, Boolean> ALLOW_UNSUBSCRIBE = PART.field(
                    "allow_unsubscribe",
                    FieldTypes.TRUTH,
                    delivery -> delivery.options().allowUnsubscribe(),
                    "Gives each recipient an unsubscribe link.")
            .usual(false);
    private static final Field<DeliveryDefinition, List<ReaderChoice>> REFUSE_CHOICES = PART.field(
                    "refuse_choices",
                    FieldTypes.choice(ReaderChoice.values()).list(),
                    delivery -> delivery.options().refusedChoices(),
                    "What recipients may not choose by the link in each message: to `pause` until a date, to `collect` the messages of a day or a week in one, or to get files as a `link`.")
            .usual(List.of())
            .usually("they may choose all of these");
    private static final Field<DeliveryDefinition, Thread> THREAD = PART.field(
                    "thread",
                    FieldTypes.choice(Thread.values()),
                    delivery -> delivery.options().thread(),
                    "Which messages mail programs show as one conversation.")
            .usual(Thread.NONE);
    private static final Field<DeliveryDefinition, String> CHART = PART.field(
            "chart",
            FieldTypes.text("measure"),
            DeliveryDefinition::chart,
            "Draws the measure's trend for the five worst findings of the message.");
    private static final Field<DeliveryDefinition, Escalation> ESCALATE = PART.field(
            "escalate",
            FieldTypes.optionalPart(ESCALATION, DeliveryFields::escalation),
            DeliveryDefinition::escalation,
            ESCALATION.help());
    private static final Field<DeliveryDefinition, List<AlsoSent>> ALSO_SEND = PART.field(
                    "also_send",
                    FieldTypes.parts(ALSO_SENT, "query", DeliveryFields::alsoSent),
                    DeliveryDefinition::alsoSent,
                    "Rows of other queries that go with the message.")
            .usual(List.of());
    private static final Field<DeliveryDefinition, List<Variant>> VARIANTS = PART.field(
                    "variants",
                    variants(),
                    DeliveryDefinition::variants,
                    "What some of the recipients get differently: another text, other files, another form.")
            .usual(List.of());

    private DeliveryFields() {}

    static DeliveryDefinition read(Fields fields) {
        var columns = COLUMNS.in(fields);
        var chosen = LAYOUT.read(fields);
        if (chosen.isPresent() && !columns.isEmpty())
            fields.refuse(COLUMNS.name(), "columns and layout cannot be combined; list the columns in the layout");
        return new DeliveryDefinition(
                new Recipients(TO.in(fields), CC.in(fields), BCC.in(fields), REPLY_TO.in(fields)),
                chosen.map(ChosenLayout::own).orElse(LayoutDefinition.of(columns)),
                chosen.map(ChosenLayout::shared).orElse(null),
                ATTACH.in(fields),
                PACK.in(fields),
                SHOW.in(fields),
                new Texts(
                        LANGUAGE.in(fields),
                        SUBJECT.orNull(fields),
                        OPENING.orNull(fields),
                        CLOSING.orNull(fields),
                        SEND_WHEN_QUIET.in(fields)),
                new MessageOptions(
                        SEND_FROM.orNull(fields),
                        MAX_PER_HOUR.orNull(fields),
                        ALLOW_UNSUBSCRIBE.in(fields),
                        REFUSE_CHOICES.in(fields).stream().distinct().toList(),
                        THREAD.in(fields),
                        SENDER.orNull(fields)),
                CHART.orNull(fields),
                split(fields),
                ESCALATE.orNull(fields),
                ALSO_SEND.in(fields),
                VARIANTS.in(fields));
    }

    private static List<String> people(Fields fields, String name) {
        return fields.parsedItems(name, MailAddress::list).stream()
                .flatMap(List::stream)
                .distinct()
                .toList();
    }

    /** @param own the usual where {@code shared} names one */
    private record ChosenLayout(
            LayoutDefinition own, @Nullable String shared) {}

    private static FieldType<ChosenLayout> layoutType() {
        var shared = FieldTypes.nameOf("layout");
        var own = FieldTypes.part(LayoutFields.PART, LayoutFields::read);
        return FieldType.of(
                shared.shape().or(own.shape()),
                (fields, name) -> fields.isMapping(name)
                        ? own.read(fields, name).map(layout -> new ChosenLayout(layout, null))
                        : shared.read(fields, name).map(called -> new ChosenLayout(LayoutDefinition.USUAL, called)),
                chosen -> chosen.shared() == null ? own.print(chosen.own()) : chosen.shared());
    }

    private static @Nullable ChosenLayout chosenLayout(DeliveryDefinition delivery) {
        if (delivery.sharedLayout() == null && delivery.layout().isOfBareColumns()) return null;
        return new ChosenLayout(delivery.layout(), delivery.sharedLayout());
    }

    private static @Nullable List<String> bareColumns(DeliveryDefinition delivery) {
        return chosenLayout(delivery) == null ? delivery.layout().columnNames() : null;
    }

    private static @Nullable Split split(Fields fields) {
        var by = SPLIT_BY.orNull(fields);
        var to = SPLIT_TO.in(fields);
        var from = SPLIT_FROM.orNull(fields);
        var address = SPLIT_ADDRESS.orNull(fields);
        if (by != null) return new Split(by, to, from, address);
        if (from != null || address != null || !to.isEmpty()) fields.requireValue(SPLIT_BY.name(), "terminal", false);
        return null;
    }

    private static Escalation escalation(Fields fields) {
        return new Escalation(
                ESCALATE_AFTER.read(fields).orElse(Span.ZERO),
                ESCALATE_TO.read(fields).orElse(List.of()),
                ESCALATE_SEVERITY.in(fields));
    }

    /** One that names recipients alone would differ in nothing. */
    private static FieldType<List<Variant>> variants() {
        var parts = FieldTypes.parts(VARIANT, VARIANT_FOR.name(), DeliveryFields::variant);
        return FieldType.of(VARIANT.shape().inList(), parts::read, parts::print);
    }

    private static Variant variant(Fields item) {
        var variant = new Variant(
                VARIANT_FOR.read(item).orElse(List.of()),
                VARIANT_SUBJECT.orNull(item),
                VARIANT_OPENING.orNull(item),
                VARIANT_CLOSING.orNull(item),
                VARIANT_SHOW.orNull(item),
                VARIANT_ROWS_AS.orNull(item),
                VARIANT_ATTACH.orNull(item));
        if (variant.equals(new Variant(variant.recipients(), null, null, null, null, null, null)))
            item.refuse(
                    VARIANT_FOR.name(),
                    "this variant differs in nothing; add subject, opening, closing, show, rows_as or attach, or remove it");
        return variant;
    }

    private static AlsoSent alsoSent(Fields item) {
        return new AlsoSent(
                ALSO_QUERY.read(item).orElse(""),
                ALSO_LAYOUT.orNull(item),
                ALSO_ATTACH.in(item),
                ALSO_ROWS_IN_MAIL.in(item));
    }
}
