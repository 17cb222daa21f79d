package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;

import dev.oddsentry.core.definition.Definition;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.ReaderChoiceView;
import dev.oddsentry.service.recipients.ReaderChoices;
import dev.oddsentry.service.recipients.RecipientLanguages;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jooq.Condition;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Who gets what: by address, from the definitions, and from recent messages if a query or the rows name the recipient.
 * Addresses are compared without regard to case.
 */
@Component
public class RecipientOverview {
    private final RuleStates states;
    private final RecipientIndex index;
    private final BlockedRecipients reach;
    private final RecipientLanguages languages;
    private final ReaderChoices choices;
    private final Visibility visibility;
    private final VisibleDefinitions visible;

    RecipientOverview(
            RuleStates states,
            RecipientIndex index,
            BlockedRecipients reach,
            RecipientLanguages languages,
            ReaderChoices choices,
            VisibleDefinitions visible,
            Visibility visibility) {
        this.visibility = visibility;
        this.visible = visible;
        this.states = states;
        this.index = index;
        this.reach = reach;
        this.languages = languages;
        this.choices = choices;
    }

    /**
     * @param state of the rule; null for a round-up
     * @param how the field that names the recipient, such as {@code to} or {@code split Holm}; {@code a query or the rows} if no field does
     * @param messages of the last 30 days
     * @param unsubscribedAt when the recipient unsubscribed; null if not
     * @param choice what the recipient chose by the link in a message; null for nothing
     */
    record RecipientEntry(
            String kind,
            String name,
            String title,
            @Nullable RuleState state,
            List<String> how,
            int messages,
            @Nullable Instant lastAt,
            @Nullable Instant unsubscribedAt,
            @Nullable ReaderChoiceView choice) {}

    /**
     * @param language null for that of each rule
     * @param blocked why no mail goes there; null where it does
     */
    public record RecipientPage(
            String address,
            @Nullable String language,
            @Nullable String blocked,
            List<RecipientEntry> gets) {}

    public record RecipientSummary(
            String address,
            int rules,
            int messages,
            @Nullable Instant lastAt,
            boolean blocked) {}

    public List<RecipientSummary> all() {
        var known = known();
        var barred = reach.barred(null);
        return known.addresses().stream()
                .map(address -> {
                    var ids = known.of(address);
                    var sent = ids.stream().map(id -> known.sent(address, id)).toList();
                    return new RecipientSummary(
                            address,
                            ids.size(),
                            sent.stream()
                                    .mapToInt(RecipientIndex.Sent::messages)
                                    .sum(),
                            sent.stream()
                                    .map(RecipientIndex.Sent::lastAt)
                                    .filter(Objects::nonNull)
                                    .max(Instant::compareTo)
                                    .orElse(null),
                            barred.containsKey(address));
                })
                .toList();
    }

    public RecipientPage one(String written) {
        String address = written.strip().toLowerCase(Locale.ROOT);
        var known = known();
        var of = known.of(address);
        var gets = new ArrayList<RecipientEntry>();
        for (var rule : visible.rules())
            if (of.contains(rule.id())) gets.add(entry("rule", rule, states.of(rule.ruleId()), address, known));
        for (var roundUp : visible.roundUps())
            if (of.contains(roundUp.id())) gets.add(entry("round-up", roundUp, null, address, known));
        var language = languages.byAddress().get(address);
        var barred = reach.barred(null).get(address);
        return new RecipientPage(
                address, language == null ? null : language.code(), barred == null ? null : barred.words(), gets);
    }

    private RecipientEntry entry(
            String kind,
            Current<? extends Definition> of,
            @Nullable RuleState state,
            String address,
            RecipientIndex.Index known) {
        var lately = known.sent(address, of.id());
        var left = reach.leavers(of.id()).stream()
                .filter(leaver -> leaver.address().equals(address) && leaver.resubscribedAt() == null)
                .map(BlockedRecipients.UnsubscribedRecipient::unsubscribedAt)
                .findFirst()
                .orElse(null);
        var how = known.reasons(address, of.id()).stream()
                .map(RecipientIndex.Reason::text)
                .toList();
        return new RecipientEntry(
                kind,
                of.definition().name(),
                of.definition().title(),
                state,
                how.isEmpty() ? List.of("a query or the rows") : how,
                lately.messages(),
                lately.lastAt(),
                left,
                choices.of(of.id(), address).map(ReaderChoiceView::of).orElse(null));
    }

    private RecipientIndex.Index known() {
        return index.of(visible.rules(), visible.roundUps(), messages());
    }

    private Condition messages() {
        var seen = visibility.now();
        return seen.rules(MESSAGE.RULE_ID).and(seen.definitions(MESSAGE.ROUND_UP_ID));
    }
}
