package dev.oddsentry.service.readers;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static org.jooq.impl.DSL.lower;
import static org.jooq.impl.DSL.noCondition;

import dev.oddsentry.core.definition.ReaderChoice;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.outbox.RecipientState;
import dev.oddsentry.service.overview.RecipientIndex;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.ReaderChoices;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.rules.RuleStates;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;

/** All that one address is mailed, and why. A recipient learns it of rules that they do not see in the console, too. */
@Component
public class OwnMail {
    private final DefinitionStore definitions;
    private final RuleStates states;
    private final RecipientIndex index;
    private final BlockedRecipients blocked;
    private final ReaderChoices choices;
    private final People people;
    private final DSLContext db;

    OwnMail(
            DefinitionStore definitions,
            RuleStates states,
            RecipientIndex index,
            BlockedRecipients blocked,
            ReaderChoices choices,
            People people,
            DSLContext db) {
        this.definitions = definitions;
        this.states = states;
        this.index = index;
        this.blocked = blocked;
        this.choices = choices;
        this.people = people;
        this.db = db;
    }

    /**
     * A rule or a round-up that mails the address.
     *
     * @param reasons empty where only rows or a query name the address
     * @param unsubscribed whether the recipient has unsubscribed
     * @param mayLeave whether the owner lets recipients unsubscribe
     * @param allowed what else the recipient may choose here
     * @param chosen empty where each message is sent as it comes
     * @param waiting how many messages are kept back for the recipient
     */
    public record Entry(
            UUID definition,
            boolean isRoundUp,
            String name,
            String title,
            String owner,
            ZoneId zone,
            Language language,
            List<RecipientIndex.Reason> reasons,
            RecipientIndex.Sent sent,
            boolean unsubscribed,
            boolean mayLeave,
            List<ReaderChoice> allowed,
            Optional<ReaderChoices.Chosen> chosen,
            int waiting) {}

    public List<Entry> of(String written) {
        String address = written.strip().toLowerCase(Locale.ROOT);
        var rules = definitions.rules();
        var roundUps = definitions.roundUps();
        var known = index.of(rules, roundUps, noCondition());
        var of = known.of(address);
        boolean logsIn = people.called(address).isPresent();
        var entries = new ArrayList<Entry>();
        for (var rule : rules)
            if (of.contains(rule.id()) && states.of(rule.ruleId()) != RuleState.DRAFT)
                entries.add(entry(rule, address, known, logsIn));
        for (var roundUp : roundUps) if (of.contains(roundUp.id())) entries.add(entry(roundUp, address, known));
        return entries;
    }

    private Entry entry(Current<RuleDefinition> of, String address, RecipientIndex.Index known, boolean logsIn) {
        var rule = of.definition();
        var options = rule.delivery().options();
        var reasons = known.reasons(address, of.id());
        var sent = known.sent(address, of.id());
        // An escalation is for somebody to act on, and is sent at once.
        boolean onlyEscalations = sent.messages() == 0
                && !reasons.isEmpty()
                && reasons.stream().allMatch(reason -> reason.field().equals("escalation"));
        // Files behind the link can be had by those who log in.
        boolean mayHaveLinks = logsIn && rule.delivery().attaches();
        var allowed = options.readerChoices().stream()
                .filter(choice -> !onlyEscalations && (choice != ReaderChoice.LINK || mayHaveLinks))
                .toList();
        return new Entry(
                of.id(),
                false,
                rule.name(),
                rule.title(),
                rule.owner(),
                rule.zone(),
                rule.delivery().texts().language(),
                reasons,
                sent,
                blocked.hasLeft(of.id(), address),
                options.allowUnsubscribe(),
                allowed,
                effective(of.id(), address, allowed),
                waiting(of.id(), address));
    }

    private Entry entry(Current<RoundUpDefinition> of, String address, RecipientIndex.Index known) {
        var roundUp = of.definition();
        return new Entry(
                of.id(),
                true,
                roundUp.name(),
                roundUp.title(),
                roundUp.owner(),
                roundUp.zone(),
                roundUp.language(),
                known.reasons(address, of.id()),
                known.sent(address, of.id()),
                blocked.hasLeft(of.id(), address),
                roundUp.readers().allowUnsubscribe(),
                roundUp.readers().choices(),
                effective(of.id(), address, roundUp.readers().choices()),
                waiting(of.id(), address));
    }

    /** What was chosen before the owner took that choice away has no effect. */
    private Optional<ReaderChoices.Chosen> effective(UUID definition, String address, List<ReaderChoice> allowed) {
        return choices.of(definition, address)
                .filter(chosen -> chosen.pausedUntil() == null || allowed.contains(ReaderChoice.PAUSE))
                .filter(chosen -> chosen.time() == null || allowed.contains(ReaderChoice.COLLECT));
    }

    private int waiting(UUID definition, String address) {
        return db.fetchCount(
                MESSAGE_RECIPIENT.join(MESSAGE).on(MESSAGE.ID.eq(MESSAGE_RECIPIENT.MESSAGE_ID)),
                waitFor(address).and(isOf(definition)));
    }

    /** True of a recipient's part in a message that is kept back for them. */
    static Condition waitFor(String address) {
        return lower(MESSAGE_RECIPIENT.ADDRESS).eq(address).and(MESSAGE_RECIPIENT.STATE.eq(RecipientState.WAITING));
    }

    static Condition isOf(UUID definition) {
        return MESSAGE.RULE_ID.eq(new RuleId(definition)).or(MESSAGE.ROUND_UP_ID.eq(definition));
    }
}
