package dev.oddsentry.core.definition;

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
 * @param recipients those who hear; where it is split, of the rows whose value nobody is named for
 * @param layout its own; the usual where {@code sharedLayout} names one
 * @param sharedLayout the name of a layout that others use too; null for none
 * @param attachments files with everything open
 * @param packing how the files are packed
 * @param show whether the mail shows the rows, or leads to them
 * @param texts what a person wrote in place of the usual words
 * @param manners how its mails behave among others
 * @param chart the measure that is drawn over the past checks; null for none
 * @param split null where one audience hears everything
 * @param escalation who hears of what nobody has taken; null for nobody
 * @param alsoSent rows of other queries that go with the mail
 */
public record DeliveryDefinition(
        Recipients recipients,
        LayoutDefinition layout,
        @Nullable String sharedLayout,
        List<Attachment> attachments,
        Packing packing,
        Show show,
        Texts texts,
        Manners manners,
        @Nullable String chart,
        @Nullable Split split,
        @Nullable Escalation escalation,
        List<AlsoSent> alsoSent) {
    /** Messages an hour to one audience, unless the rule says otherwise. */
    public static final int USUAL_MOST_AN_HOUR = 60;

    /**
     * @param to addresses, or names of teams
     * @param replyTo empty for the owning team's
     */
    public record Recipients(List<String> to, List<String> cc, List<String> bcc, List<String> replyTo) {
        public static final Recipients NOBODY = new Recipients(List.of(), List.of(), List.of(), List.of());

        public static Recipients to(List<String> to) {
            return new Recipients(to, List.of(), List.of(), List.of());
        }

        /** Everyone whose mail program shows it. */
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

        /** As documents and file names have it. */
        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** @param file the name without its ending, with fields such as {@code {{date}}}; null for the usual */
    public record Attachment(Format format, @Nullable String file, Csv csv, Paper paper) {
        public static Attachment of(Format format) {
            return new Attachment(format, null, Csv.USUAL, Paper.A4);
        }
    }

    /**
     * How a CSV file is written.
     *
     * @param encoding a name of IANA's
     * @param mark whether it starts with a byte-order mark; only of Unicode's encodings
     */
    public record Csv(char delimiter, char decimal, String encoding, boolean mark) {
        public static final Csv USUAL = new Csv(',', '.', "UTF-8", true);
    }

    public enum Paper {
        A4,
        LETTER;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** How the files are packed. */
    public enum Packing {
        NOT,
        ZIP,
        /** With the password that is kept for the rule. */
        ENCRYPTED;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /** What the mail itself has of the rows. */
    public enum Show {
        ROWS,
        /** A link behind log-in alone, for what must not be mailed. */
        LINK;

        public String code() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * @param language null for English
     * @param subject a template; null for the usual subject
     * @param opening a template of what stands above the rows; null for nothing
     * @param allQuiet whether a check without news says so
     */
    public record Texts(
            Language language,
            @Nullable String subject,
            @Nullable String opening,
            boolean allQuiet) {
        public static final Texts USUAL = new Texts(Language.EN, null, null, false);
    }

    /**
     * Each value of a column has an audience of its own, which hears of its findings alone.
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

        /** Whether somebody may hear of some value without being named for all. */
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

    /** Whether somebody is named for all that is found, or for some values of the split. */
    public boolean hasReaders() {
        return !to().isEmpty() || (split != null && split.names());
    }

    /** Which of a rule's mails a mail program shows together. */
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
     * How a rule's mails behave.
     *
     * @param mostAnHour over so many messages an hour, an audience's news stands and is told together by the next; null for the usual
     * @param mayLeave whether each reader can stop them by a link
     */
    public record Manners(@Nullable Integer mostAnHour, boolean mayLeave, Thread thread) {
        /** Over so many messages an hour an audience's updates wait and come together with the next. */
        public int limitAnHour() {
            return mostAnHour == null ? USUAL_MOST_AN_HOUR : mostAnHour;
        }

        public static final Manners USUAL = new Manners(null, false, Thread.NONE);
    }

    /**
     * A finding that nobody has taken, snoozed or accepted within a time of being reported goes to others too, once.
     *
     * @param atLeast nothing below goes there
     */
    public record Escalation(Span after, List<String> to, Severity atLeast) {
        private @Nullable Escalation with(UnaryOperator<List<String>> change) {
            var left = change.apply(to);
            return left.isEmpty() ? null : new Escalation(after, left, atLeast);
        }
    }

    /**
     * The rows of another query, asked with the rule's values for parameters of the same names.
     *
     * @param layout a shared layout; null for all its columns
     * @param attachments empty for rows in the mail alone
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
            Manners.USUAL,
            null,
            null,
            null,
            List.of());

    /** The same with what the shared layout says. */
    public DeliveryDefinition with(LayoutDefinition resolved) {
        return with(resolved, sharedLayout);
    }

    /** The same in another layout than the rule's. */
    public DeliveryDefinition instead(LayoutDefinition other) {
        return with(other, null);
    }

    private DeliveryDefinition with(LayoutDefinition resolved, @Nullable String named) {
        return new DeliveryDefinition(
                recipients,
                resolved,
                named,
                attachments,
                packing,
                show,
                texts,
                manners,
                chart,
                split,
                escalation,
                alsoSent);
    }

    /** The same in another language. */
    public DeliveryDefinition in(Language language) {
        var others = new Texts(language, texts.subject(), texts.opening(), texts.allQuiet());
        return new DeliveryDefinition(
                recipients,
                layout,
                sharedLayout,
                attachments,
                packing,
                show,
                others,
                manners,
                chart,
                split,
                escalation,
                alsoSent);
    }

    /**
     * The same to others.
     *
     * @param change of each list of addresses and teams; a value of the split, or an escalation, that nobody is left for is gone
     */
    public DeliveryDefinition withPeople(UnaryOperator<List<String>> change) {
        var changed = new Recipients(
                change.apply(recipients.to()),
                change.apply(recipients.cc()),
                change.apply(recipients.bcc()),
                recipients.replyTo());
        var others = split == null ? null : split.with(change);
        return with(changed, others, escalation == null ? null : escalation.with(change));
    }

    /** The same, told to nobody: neither those it names nor those whom a query or the rows name. */
    public DeliveryDefinition withoutPeople() {
        return with(Recipients.NOBODY, split == null ? null : new Split(split.by(), Map.of(), null, null), null);
    }

    private DeliveryDefinition with(Recipients people, @Nullable Split by, @Nullable Escalation later) {
        return new DeliveryDefinition(
                people, layout, sharedLayout, attachments, packing, show, texts, manners, chart, by, later, alsoSent);
    }

    /** The same to these instead, besides those in copy. */
    public DeliveryDefinition to(List<String> people) {
        return with(new Recipients(people, recipients.cc(), recipients.bcc(), recipients.replyTo()), split, escalation);
    }

    public List<String> to() {
        return recipients.to();
    }

    /** True where files with everything open go with the mail. */
    public boolean attaches() {
        return !attachments.isEmpty();
    }

    /** Every address that the rule itself names. */
    public Set<String> named() {
        var named = recipients.all();
        if (split != null) split.to().values().forEach(named::addAll);
        if (escalation != null) named.addAll(escalation.to());
        return named;
    }
}
