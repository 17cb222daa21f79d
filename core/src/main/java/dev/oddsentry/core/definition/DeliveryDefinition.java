package dev.oddsentry.core.definition;

import dev.oddsentry.core.extract.FileRows;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.time.Span;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * Who gets which part of the extract, and how.
 *
 * @param recipients the recipients; in a split rule those of values without recipients of their own
 * @param layout its own; the default if {@code sharedLayout} names one
 * @param sharedLayout the name of a shared layout; null for none
 * @param attachments files with all open findings
 * @param packing how the files are packed
 * @param show whether the message contains the rows, or a link to them
 * @param texts texts in place of the usual ones
 * @param options limits and conversations
 * @param chart the measure whose trend is drawn; null for none
 * @param split null for one audience
 * @param escalation who gets findings that nobody takes; null for nobody
 * @param alsoSent rows of other queries in the message
 * @param variants what some of the recipients get differently
 */
public record DeliveryDefinition(
        Recipients recipients,
        LayoutDefinition layout,
        @Nullable String sharedLayout,
        List<Attachment> attachments,
        Packing packing,
        Show show,
        Texts texts,
        MessageOptions options,
        @Nullable String chart,
        @Nullable Split split,
        @Nullable Escalation escalation,
        List<AlsoSent> alsoSent,
        List<Variant> variants) {
    /** Messages per hour to one audience, unless the rule has a limit. */
    public static final int USUAL_MAX_PER_HOUR = 60;

    /**
     * @param to addresses, or names of teams
     * @param replyTo empty for the owning team
     */
    public record Recipients(List<String> to, List<String> cc, List<String> bcc, List<String> replyTo) {
        public static final Recipients NOBODY = new Recipients(List.of(), List.of(), List.of(), List.of());

        public static Recipients to(List<String> to) {
            return new Recipients(to, List.of(), List.of(), List.of());
        }

        /** All recipients of the message. */
        public Set<String> all() {
            var all = new LinkedHashSet<>(to);
            all.addAll(cc);
            all.addAll(bcc);
            return all;
        }
    }

    /** A format of files. */
    public enum Format {
        XLSX("application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
        CSV("text/csv; charset=UTF-8"),
        PDF("application/pdf"),
        HTML("text/html; charset=UTF-8"),
        JSON("application/json");

        private final String mediaType;

        Format(String mediaType) {
            this.mediaType = mediaType;
        }

        public String mediaType() {
            return mediaType;
        }

        /** The name in documents, and the ending of file names. */
        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** How the files are packed. */
    public enum Packing {
        NOT,
        ZIP,
        /** With the password that is stored for the rule. */
        ENCRYPTED;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** What the message contains of the rows. */
    public enum Show {
        ROWS,
        /** Only a link behind log-in, for data that must not be mailed. */
        LINK;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * @param language null for English
     * @param subject a template; null for the default
     * @param opening a template for the text above the rows; null for none
     * @param closing a template for the text below them; null for none
     * @param sendWhenQuiet whether a message is sent when nothing is new
     */
    public record Texts(
            Language language,
            @Nullable String subject,
            @Nullable String opening,
            @Nullable String closing,
            boolean sendWhenQuiet) {
        public static final Texts USUAL = new Texts(Language.EN, null, null, null, false);
    }

    /**
     * Each value of a column has an audience, which gets only its findings.
     *
     * @param to addresses by value, as text
     * @param from a query with the split's column and one called {@code address}, for values that {@code to} does not name; null for none
     * @param address the column of the row that has the addresses, for values that neither names; null for none
     */
    public record Split(
            String by,
            Map<String, List<String>> to,
            @Nullable String from,
            @Nullable String address) {
        public static final String ADDRESS = "address";

        /** Whether any value can have recipients of its own. */
        boolean names() {
            return !to.isEmpty() || from != null || address != null;
        }

        private Split with(UnaryOperator<List<String>> change) {
            var changed = new LinkedHashMap<String, List<String>>();
            to.forEach((value, people) -> {
                var left = change.apply(people);
                if (!left.isEmpty()) changed.put(value, left);
            });
            return new Split(by, changed, from, address);
        }
    }

    /** Whether there are recipients for all findings, or for some values of the split. */
    public boolean hasRecipients() {
        return !to().isEmpty() || (split != null && split.names());
    }

    /** Which messages of a rule mail programs show as one conversation. */
    public enum Thread {
        NONE,
        RULE,
        MONTH,
        DAY;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * Limits, conversations and the sender of a rule's messages.
     *
     * @param sendFrom the lowest severity for which a message is sent; less severe updates wait for the next message; null for every
     *     severity
     * @param maxPerHour messages per hour and audience; further updates wait for the next message; null for the default
     * @param allowUnsubscribe whether each recipient gets an unsubscribe link
     * @param refusedChoices what recipients may not choose
     * @param sender null for that of the installation
     */
    public record MessageOptions(
            @Nullable Severity sendFrom,
            @Nullable Integer maxPerHour,
            boolean allowUnsubscribe,
            List<ReaderChoice> refusedChoices,
            Thread thread,
            @Nullable Sender sender) {
        /** The number of messages per hour and audience after which updates wait for the next message. */
        public int hourlyLimit() {
            return maxPerHour == null ? USUAL_MAX_PER_HOUR : maxPerHour;
        }

        /** What each recipient may choose. */
        public List<ReaderChoice> readerChoices() {
            return ReaderChoice.allBut(refusedChoices);
        }

        public static final MessageOptions USUAL = new MessageOptions(null, null, false, List.of(), Thread.NONE, null);
    }

    /**
     * Sends findings that nobody takes, snoozes or accepts in time to others, once.
     *
     * @param minimumSeverity the lowest severity that is escalated
     */
    public record Escalation(Span after, List<String> to, Severity minimumSeverity) {
        private @Nullable Escalation with(UnaryOperator<List<String>> change) {
            var left = change.apply(to);
            return left.isEmpty() ? null : new Escalation(after, left, minimumSeverity);
        }
    }

    /**
     * Rows of another query, run with the rule's values for parameters of the same names.
     *
     * @param layout a shared layout; null for all its columns
     * @param attachments empty for none
     * @param rowsInMail 0 for none
     */
    public record AlsoSent(String query, @Nullable String layout, List<Attachment> attachments, int rowsInMail) {}

    public static final DeliveryDefinition TO_NOBODY = new DeliveryDefinition(
            Recipients.NOBODY,
            LayoutDefinition.USUAL,
            null,
            List.of(),
            Packing.NOT,
            Show.ROWS,
            Texts.USUAL,
            MessageOptions.USUAL,
            null,
            null,
            null,
            List.of(),
            List.of());

    /** The same with the shared layout in place. */
    public DeliveryDefinition with(LayoutDefinition resolved) {
        return with(resolved, sharedLayout);
    }

    /** The same with another layout. */
    public DeliveryDefinition instead(LayoutDefinition other) {
        return with(other, null);
    }

    private DeliveryDefinition with(LayoutDefinition resolved, @Nullable String named) {
        return inForm(resolved, named, attachments, show, texts, variants);
    }

    /** The same without the rows that are no exceptions, for a calculation that sends nothing. */
    public DeliveryDefinition withoutWholeReport() {
        if (!showsWholeReport()) return this;
        return inForm(
                layout.withoutWholeReport(),
                sharedLayout,
                attachments.stream().filter(each -> each.rows() != FileRows.ALL).toList(),
                show,
                texts,
                variants.stream().map(Variant::withoutWholeReport).toList());
    }

    /** The same as the recipients of a variant get it. */
    public DeliveryDefinition as(Variant variant) {
        return inForm(
                variant.rowsAs() == null ? layout : layout.withRowsAs(variant.rowsAs()),
                sharedLayout,
                variant.attachments() == null ? attachments : variant.attachments(),
                variant.show() == null ? show : variant.show(),
                new Texts(
                        texts.language(),
                        variant.subject() == null ? texts.subject() : variant.subject(),
                        variant.opening() == null ? texts.opening() : variant.opening(),
                        variant.closing() == null ? texts.closing() : variant.closing(),
                        texts.sendWhenQuiet()),
                variants);
    }

    /** The same in another language. */
    public DeliveryDefinition in(Language language) {
        var others = new Texts(language, texts.subject(), texts.opening(), texts.closing(), texts.sendWhenQuiet());
        return inForm(layout, sharedLayout, attachments, show, others, variants);
    }

    private DeliveryDefinition inForm(
            LayoutDefinition rows,
            @Nullable String named,
            List<Attachment> files,
            Show contents,
            Texts words,
            List<Variant> differing) {
        return new DeliveryDefinition(
                recipients,
                rows,
                named,
                files,
                packing,
                contents,
                words,
                options,
                chart,
                split,
                escalation,
                alsoSent,
                differing);
    }

    /**
     * The same with other recipients.
     *
     * @param change of each list of addresses and teams; a value of the split, or an escalation, without recipients is removed
     */
    public DeliveryDefinition withPeople(UnaryOperator<List<String>> change) {
        var changed = new Recipients(
                change.apply(recipients.to()),
                change.apply(recipients.cc()),
                change.apply(recipients.bcc()),
                recipients.replyTo());
        var others = split == null ? null : split.with(change);
        return with(
                changed,
                others,
                escalation == null ? null : escalation.with(change),
                variants.stream().flatMap(each -> each.with(change).stream()).toList());
    }

    /** The same without recipients, also those that a query or the rows name. */
    public DeliveryDefinition withoutPeople() {
        return with(
                Recipients.NOBODY, split == null ? null : new Split(split.by(), Map.of(), null, null), null, List.of());
    }

    private DeliveryDefinition with(
            Recipients people, @Nullable Split by, @Nullable Escalation later, List<Variant> others) {
        return new DeliveryDefinition(
                people,
                layout,
                sharedLayout,
                attachments,
                packing,
                show,
                texts,
                options,
                chart,
                by,
                later,
                alsoSent,
                others);
    }

    /** The same to these recipients, and those in copy. */
    public DeliveryDefinition to(List<String> people) {
        return with(
                new Recipients(people, recipients.cc(), recipients.bcc(), recipients.replyTo()),
                split,
                escalation,
                variants);
    }

    public List<String> to() {
        return recipients.to();
    }

    /** {@code true} if files go with the mail. */
    public boolean attaches() {
        return !attachments.isEmpty();
    }

    /** {@code true} if the message or one of its files has rows that are no exceptions. */
    public boolean showsWholeReport() {
        return layout.wholeReport()
                || attachments.stream().anyMatch(each -> each.rows() == FileRows.ALL)
                || variants.stream().anyMatch(Variant::hasWholeReport);
    }

    /** All that stands for recipients anywhere, those who get answers and those of variants included. */
    Set<String> mentioned() {
        var all = named();
        all.addAll(recipients.replyTo());
        variants.forEach(each -> all.addAll(each.recipients()));
        return all;
    }

    /** Every address that the rule names. */
    public Set<String> named() {
        var named = recipients.all();
        if (split != null) split.to().values().forEach(named::addAll);
        if (escalation != null) named.addAll(escalation.to());
        return named;
    }
}
