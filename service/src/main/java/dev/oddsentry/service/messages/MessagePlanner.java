package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.mail.Directory;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.recipients.RecipientLanguages;
import dev.oddsentry.service.reporting.ReportPlan;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.springframework.stereotype.Component;

/** Says which audiences hear by which message: one for each, and one for all those for whom nobody is named. */
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

    MessagePlanner(
            MemoryStore memory,
            SplitRecipients addresses,
            MessageComposer messageComposer,
            AdditionalRows alsoSending,
            RecipientLanguages languages,
            Directory directory,
            RowAddresses ofRows) {
        this.alsoSending = alsoSending;
        this.languages = languages;
        this.directory = directory;
        this.memory = memory;
        this.addresses = addresses;
        this.messageComposer = messageComposer;
    }

    /** The plan with the messages that report it: one for each audience that is sent anything, and one for all without recipients of their own. */
    public ReportPlan withMessages(MessageContext about, Evaluation evaluation, ReportPlan told) {
        boolean says = !told.told().isEmpty() || about.rule().delivery().texts().sendWhenQuiet();
        return says ? told.with(messages(about, evaluation, told)) : told;
    }

    public List<ReportPlan.Outgoing> messages(MessageContext about, Evaluation evaluation, ReportPlan told) {
        var letters = letters(about, evaluation, told);
        var also = letters.isEmpty() ? List.<AdditionalRows.Rows>of() : alsoSending.read(about);
        return letters.stream()
                // A rule that only a round-up tells of has nobody of its own.
                .filter(letter -> !letter.to().isEmpty())
                .map(letter -> new ReportPlan.Outgoing(
                        messageComposer.message(about, evaluation, letter, also), letter.parts()))
                .toList();
    }

    /** All messages as they would be, each to this address alone. */
    public List<ReportPlan.Outgoing> previewsFor(
            String address, MessageContext about, Evaluation evaluation, ReportPlan told) {
        var letters = letters(about, evaluation, told);
        var also = letters.isEmpty() ? List.<AdditionalRows.Rows>of() : alsoSending.read(about);
        return letters.stream()
                .limit(MOST_PREVIEWS)
                .map(letter -> letter.insteadTo(address))
                .map(letter -> new ReportPlan.Outgoing(
                        messageComposer.message(about, evaluation, letter, also), letter.parts()))
                .toList();
    }

    /** Those of the messages that go to this address among others, written to it alone. */
    public List<ReportPlan.Outgoing> messagesTo(
            String address, MessageContext about, Evaluation evaluation, ReportPlan told) {
        var letters = letters(about, evaluation, told);
        var also = letters.isEmpty() ? List.<AdditionalRows.Rows>of() : alsoSending.read(about);
        return letters.stream()
                .map(letter -> letter.toOnly(address))
                .filter(letter -> !letter.to().isEmpty())
                .map(letter -> new ReportPlan.Outgoing(
                        messageComposer.message(about, evaluation, letter, also), letter.parts()))
                .toList();
    }

    /** Of those who hear together each reads it in their own language, where they have set one. */
    private List<MessageDraft> letters(MessageContext about, Evaluation evaluation, ReportPlan told) {
        var languages = this.languages.byAddress();
        return inOneLanguage(about, evaluation, told).stream()
                .flatMap(letter -> byLanguage(letter, about, languages).stream())
                .toList();
    }

    private List<MessageDraft> byLanguage(MessageDraft letter, MessageContext about, Map<String, Language> languages) {
        var usual = about.rule().delivery().texts().language();
        var readers = new LinkedHashMap<Language, List<String>>();
        for (String each : directory.written(letter.to())) {
            var own = languages.getOrDefault(MailAddress.bare(each).toLowerCase(Locale.ROOT), usual);
            readers.computeIfAbsent(own, _ -> new ArrayList<>()).add(each);
        }
        if (readers.isEmpty()) return List.of(letter);
        var withCopies =
                readers.containsKey(usual) ? usual : readers.firstEntry().getKey();
        return readers.entrySet().stream()
                .map(each -> letter.in(each.getKey(), each.getValue(), each.getKey() == withCopies))
                .toList();
    }

    private List<MessageDraft> inOneLanguage(MessageContext about, Evaluation evaluation, ReportPlan told) {
        var hearing = told.parts().stream()
                .filter(part -> !part.told().isEmpty())
                .sorted(Comparator.comparing(
                        part -> part.audience().split(), Comparator.nullsFirst(Comparator.naturalOrder())))
                .toList();
        Map<AudienceKey, Instant> lastReports = about.scope() == null ? Map.of() : memory.lastReports(about.scope());
        if (hearing.isEmpty()) {
            if (!about.rule().delivery().texts().sendWhenQuiet()) return List.of();
            var last = lastReports.get(AudienceKey.WHOLE);
            return List.of(new MessageDraft(List.of(ReportPlan.Part.QUIET), about.to(), null, evaluation.open(), last));
        }
        var split = about.rule().delivery().split();
        if (split == null) {
            var last = lastReports.get(hearing.getFirst().audience());
            return List.of(new MessageDraft(hearing, about.to(), null, evaluation.open(), last));
        }
        var addresses = this.addresses.of(about.rule(), about.moment(), split);
        Map<AudienceKey, Integer> open = about.scope() == null ? Map.of() : memory.open(about.scope());
        var letters = new ArrayList<MessageDraft>();
        var unassigned = new ArrayList<ReportPlan.Part>();
        for (var part : hearing) {
            String value = Objects.requireNonNullElse(part.audience().split(), "");
            var to = this.addresses.recipientsOf(addresses, about, part, evaluation);
            if (to.isEmpty()) unassigned.add(part);
            else
                letters.add(
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
            letters.add(new MessageDraft(unassigned, about.to(), "others", openOfAll, since));
        }
        return letters;
    }

    private static long open(Map<AudienceKey, Integer> before, ReportPlan.Part part) {
        return before.getOrDefault(part.audience(), 0) + part.openedMore();
    }
}
