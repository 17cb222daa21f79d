package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.Variant;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.Directory;
import dev.oddsentry.service.recipients.ReaderChoices;
import dev.oddsentry.service.recipients.RecipientLanguages;
import dev.oddsentry.service.reporting.ReportPlan;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Decides which audience gets which message: one for each, and one for all audiences without recipients of their own. */
@Component
public class MessagePlanner {
    /** Of a split with many values, a person looks at some. */
    private static final int MOST_PREVIEWS = 10;

    private final MemoryStore memory;
    private final SplitRecipients addresses;
    private final MessageComposer messageComposer;
    private final AdditionalRows alsoSending;
    private final RecipientLanguages languages;
    private final Directory directory;
    private final BlockedRecipients reach;
    private final ReaderChoices choices;

    MessagePlanner(
            MemoryStore memory,
            SplitRecipients addresses,
            MessageComposer messageComposer,
            AdditionalRows alsoSending,
            RecipientLanguages languages,
            Directory directory,
            BlockedRecipients reach,
            ReaderChoices choices) {
        this.choices = choices;
        this.alsoSending = alsoSending;
        this.languages = languages;
        this.directory = directory;
        this.reach = reach;
        this.memory = memory;
        this.addresses = addresses;
        this.messageComposer = messageComposer;
    }

    /** The plan with the messages that report it: one for each audience that is sent anything, and one for all without recipients of their own. */
    public ReportPlan withMessages(MessageContext context, Evaluation evaluation, ReportPlan plan) {
        boolean says =
                !plan.updates().isEmpty() || context.rule().delivery().texts().sendWhenQuiet();
        return says ? plan.with(messages(context, evaluation, plan)) : plan;
    }

    public List<ReportPlan.Outgoing> messages(MessageContext context, Evaluation evaluation, ReportPlan plan) {
        var drafts = drafts(context, evaluation, plan);
        var also = drafts.isEmpty() ? List.<AdditionalRows.Rows>of() : alsoSending.read(context);
        return drafts.stream()
                // A rule that is only in a round-up has no recipients of its own.
                .filter(draft -> !draft.to().isEmpty())
                .map(draft -> new ReportPlan.Outgoing(
                        messageComposer.message(context, evaluation, draft, also), draft.parts()))
                .toList();
    }

    /** What the fields of the texts say in the first message of the plan; empty if there is none. */
    public Map<String, String> fieldTexts(MessageContext context, Evaluation evaluation, ReportPlan plan) {
        return drafts(context, evaluation, plan).stream()
                .findFirst()
                .map(draft -> messageComposer.fieldTexts(context, evaluation, draft))
                .orElse(Map.of());
    }

    /** All messages as they would be, each to this address alone. */
    public List<ReportPlan.Outgoing> previewsFor(
            String address, MessageContext context, Evaluation evaluation, ReportPlan plan) {
        var drafts = drafts(context, evaluation, plan);
        var also = drafts.isEmpty() ? List.<AdditionalRows.Rows>of() : alsoSending.read(context);
        return drafts.stream()
                .limit(MOST_PREVIEWS)
                .map(draft -> draft.insteadTo(address))
                .map(draft -> new ReportPlan.Outgoing(
                        messageComposer.message(context, evaluation, draft, also), draft.parts()))
                .toList();
    }

    /** Those of the messages that go to this address among others, written to it alone. */
    public List<ReportPlan.Outgoing> messagesTo(
            String address, MessageContext context, Evaluation evaluation, ReportPlan plan) {
        var drafts = drafts(context, evaluation, plan);
        var also = drafts.isEmpty() ? List.<AdditionalRows.Rows>of() : alsoSending.read(context);
        return drafts.stream()
                .map(draft -> draft.toOnly(address))
                .filter(draft -> !draft.to().isEmpty())
                .map(draft -> new ReportPlan.Outgoing(
                        messageComposer.message(context, evaluation, draft, also), draft.parts()))
                .toList();
    }

    /** One message for each language that recipients of the audience have set, each variant of the rule, and for those who want files as links. */
    private List<MessageDraft> drafts(MessageContext context, Evaluation evaluation, ReportPlan plan) {
        var variants = variants(context);
        var languages = this.languages.byAddress();
        var byLink = context.scope() == null
                ? Set.<String>of()
                : choices.byLink(
                        context.scope().ruleId().value(),
                        context.rule().delivery().options().readerChoices());
        return forAll(context, evaluation, plan).stream()
                .flatMap(draft -> byForm(draft, context, variants, languages, byLink).stream())
                .toList();
    }

    private List<MessageDraft> byForm(
            MessageDraft draft,
            MessageContext context,
            Map<String, Variant> variants,
            Map<String, Language> languages,
            Set<String> byLink) {
        var delivery = context.rule().delivery();
        var usual = delivery.texts().language();
        var to = directory.written(draft.to());
        var readers = new LinkedHashMap<MessageDraft.Form, List<String>>();
        for (String each : to) {
            String address = MailAddress.bare(each).toLowerCase(Locale.ROOT);
            var form = new MessageDraft.Form(
                    variants.get(address), languages.getOrDefault(address, usual), byLink.contains(address));
            readers.computeIfAbsent(form, _ -> new ArrayList<>()).add(each);
        }
        if (readers.isEmpty()) return List.of(draft);
        var asForMost = new MessageDraft.Form(null, usual, false);
        var withCopies = readers.containsKey(asForMost)
                ? asForMost
                : readers.keySet().stream()
                        .min(Comparator.comparing(form -> form.variant() != null))
                        .orElseThrow();
        var all = sentTo(
                context,
                Stream.concat(
                        to.stream(), directory.written(delivery.recipients().cc()).stream()));
        return readers.entrySet().stream()
                .map(each ->
                        draft.in(each.getKey(), each.getValue(), each.getKey().equals(withCopies), all))
                .toList();
    }

    /** Names, or addresses without one, of those who get it; empty for one alone. Those in hidden copy are named nowhere. */
    private List<String> sentTo(MessageContext context, Stream<String> written) {
        var barred = reach.barred(
                context.scope() == null ? null : context.scope().ruleId().value());
        var names = new LinkedHashMap<String, String>();
        written.forEach(each -> {
            String address = MailAddress.bare(each);
            String name = MailAddress.name(each);
            if (!barred.containsKey(address.toLowerCase(Locale.ROOT)))
                names.putIfAbsent(address.toLowerCase(Locale.ROOT), name.isEmpty() ? address : name);
        });
        return names.size() < 2 ? List.of() : List.copyOf(names.values());
    }

    /** By address in small letters; the first variant that names one is its own. */
    private Map<String, Variant> variants(MessageContext context) {
        var variants = new HashMap<String, Variant>();
        for (var variant : context.rule().delivery().variants())
            for (String each : directory.written(variant.recipients()))
                variants.putIfAbsent(MailAddress.bare(each).toLowerCase(Locale.ROOT), variant);
        return variants;
    }

    private List<MessageDraft> forAll(MessageContext context, Evaluation evaluation, ReportPlan plan) {
        var reported = plan.parts().stream()
                .filter(part -> !part.updates().isEmpty())
                .sorted(Comparator.comparing(
                        part -> part.audience().split(), Comparator.nullsFirst(Comparator.naturalOrder())))
                .toList();
        Map<AudienceKey, Instant> lastReports =
                context.scope() == null ? Map.of() : memory.lastReports(context.scope());
        if (reported.isEmpty()) {
            if (!context.rule().delivery().texts().sendWhenQuiet()) return List.of();
            var last = lastReports.get(AudienceKey.WHOLE);
            return List.of(
                    new MessageDraft(List.of(ReportPlan.Part.QUIET), context.to(), null, evaluation.open(), last));
        }
        var split = context.rule().delivery().split();
        if (split == null) {
            var last = lastReports.get(reported.getFirst().audience());
            return List.of(new MessageDraft(reported, context.to(), null, evaluation.open(), last));
        }
        var addresses = this.addresses.of(context.rule(), context.moment(), split);
        Map<AudienceKey, Integer> open = context.scope() == null ? Map.of() : memory.open(context.scope());
        var drafts = new ArrayList<MessageDraft>();
        var unassigned = new ArrayList<ReportPlan.Part>();
        for (var part : reported) {
            String value = Objects.requireNonNullElse(part.audience().split(), "");
            var to = this.addresses.recipientsOf(addresses, context, part, evaluation);
            if (to.isEmpty()) unassigned.add(part);
            else
                drafts.add(
                        new MessageDraft(List.of(part), to, value, open(open, part), lastReports.get(part.audience())));
        }
        if (!unassigned.isEmpty()) {
            long openOfAll =
                    unassigned.stream().mapToLong(part -> open(open, part)).sum();
            Instant since = unassigned.stream()
                    .map(part -> lastReports.get(part.audience()))
                    .filter(Objects::nonNull)
                    .max(Comparator.naturalOrder())
                    .orElse(null);
            drafts.add(new MessageDraft(unassigned, context.to(), "others", openOfAll, since));
        }
        return drafts;
    }

    private static long open(Map<AudienceKey, Integer> before, ReportPlan.Part part) {
        return before.getOrDefault(part.audience(), 0) + part.openedMore();
    }
}
