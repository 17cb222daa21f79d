package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.lower;
import static org.jooq.impl.DSL.max;

import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.Directory;
import dev.oddsentry.service.recipients.RecipientLanguages;
import dev.oddsentry.service.rules.RuleState;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.visibility.Visibility;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Who gets what: by address, from the definitions, and from recent messages if a query or the rows name the recipient.
 * Addresses are compared without regard to case.
 */
@Component
public class RecipientOverview {
    private static final Duration LATELY = Duration.ofDays(30);

    private final DefinitionStore definitions;
    private final RuleStates states;
    private final Directory directory;
    private final BlockedRecipients reach;
    private final RecipientLanguages languages;
    private final DSLContext db;
    private final Clock clock;
    private final Visibility visibility;
    private final VisibleDefinitions visible;

    RecipientOverview(
            DefinitionStore definitions,
            RuleStates states,
            Directory directory,
            BlockedRecipients reach,
            RecipientLanguages languages,
            DSLContext db,
            Clock clock,
            VisibleDefinitions visible,
            Visibility visibility) {
        this.visibility = visibility;
        this.visible = visible;
        this.definitions = definitions;
        this.states = states;
        this.directory = directory;
        this.reach = reach;
        this.languages = languages;
        this.db = db;
        this.clock = clock;
    }

    /**
     * @param state of the rule; null for a round-up
     * @param how the field that names the recipient, such as {@code to} or {@code split Holm}; {@code a query or the rows} if no field does
     * @param messages of the last 30 days
     * @param unsubscribedAt when the recipient unsubscribed; null if not
     */
    record RecipientEntry(
            String kind,
            String name,
            String title,
            @Nullable RuleState state,
            List<String> how,
            int messages,
            @Nullable Instant lastAt,
            @Nullable Instant unsubscribedAt) {}

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

    private record Sent(int messages, @Nullable Instant lastAt) {
        static final Sent NONE = new Sent(0, null);
    }

    /** By address, then by definition. */
    private record Known(Map<String, Map<UUID, List<String>>> named, Map<String, Map<UUID, Sent>> sent) {
        Set<String> addresses() {
            var all = new TreeSet<>(named.keySet());
            all.addAll(sent.keySet());
            return all;
        }
    }

    public List<RecipientSummary> all() {
        var known = known();
        var barred = reach.barred(null);
        return known.addresses().stream()
                .map(address -> {
                    var named = known.named().getOrDefault(address, Map.of());
                    var sent = known.sent().getOrDefault(address, Map.of());
                    var ids = new HashSet<>(named.keySet());
                    ids.addAll(sent.keySet());
                    int messages =
                            sent.values().stream().mapToInt(Sent::messages).sum();
                    var last = sent.values().stream()
                            .map(Sent::lastAt)
                            .filter(Objects::nonNull)
                            .max(Instant::compareTo)
                            .orElse(null);
                    return new RecipientSummary(address, ids.size(), messages, last, barred.containsKey(address));
                })
                .toList();
    }

    public RecipientPage one(String written) {
        String address = written.strip().toLowerCase(Locale.ROOT);
        var known = known();
        var named = known.named().getOrDefault(address, Map.of());
        var sent = known.sent().getOrDefault(address, Map.of());
        var gets = new ArrayList<RecipientEntry>();
        for (var rule : visible.rules()) {
            if (!named.containsKey(rule.id()) && !sent.containsKey(rule.id())) continue;
            var of = rule.definition();
            gets.add(gets("rule", rule.id(), of.name(), of.title(), states.of(rule.ruleId()), address, named, sent));
        }
        for (var roundUp : visible.roundUps()) {
            if (!named.containsKey(roundUp.id()) && !sent.containsKey(roundUp.id())) continue;
            var of = roundUp.definition();
            gets.add(gets("round-up", roundUp.id(), of.name(), of.title(), null, address, named, sent));
        }
        var language = languages.byAddress().get(address);
        var barred = reach.barred(null).get(address);
        return new RecipientPage(
                address, language == null ? null : language.code(), barred == null ? null : barred.words(), gets);
    }

    private RecipientEntry gets(
            String kind,
            UUID id,
            String name,
            String title,
            @Nullable RuleState state,
            String address,
            Map<UUID, List<String>> named,
            Map<UUID, Sent> sent) {
        var lately = sent.getOrDefault(id, Sent.NONE);
        var left = reach.leavers(id).stream()
                .filter(leaver -> leaver.address().equals(address) && leaver.resubscribedAt() == null)
                .map(BlockedRecipients.UnsubscribedRecipient::unsubscribedAt)
                .findFirst()
                .orElse(null);
        return new RecipientEntry(
                kind,
                name,
                title,
                state,
                named.getOrDefault(id, List.of("a query or the rows")),
                lately.messages(),
                lately.lastAt(),
                left);
    }

    private Known known() {
        var named = new HashMap<String, Map<UUID, List<String>>>();
        for (var rule : visible.rules())
            name(named, rule.id(), rule.definition().delivery());
        for (var roundUp : visible.roundUps())
            name(named, roundUp.id(), roundUp.definition().to(), "to");
        return new Known(named, sent());
    }

    private void name(Map<String, Map<UUID, List<String>>> named, UUID id, DeliveryDefinition delivery) {
        name(named, id, delivery.recipients().to(), "to");
        name(named, id, delivery.recipients().cc(), "cc");
        name(named, id, delivery.recipients().bcc(), "bcc");
        if (delivery.split() != null)
            delivery.split().to().forEach((value, people) -> name(named, id, people, "split " + value));
        if (delivery.escalation() != null) name(named, id, delivery.escalation().to(), "escalation");
    }

    /** A team means each of its people. */
    private void name(Map<String, Map<UUID, List<String>>> named, UUID id, List<String> people, String how) {
        for (String each : people) {
            String by = MailAddress.reference(each).isPresent() ? how + ", as " + each : how;
            directory.written(List.of(each)).forEach(address -> add(named, MailAddress.bare(address), id, by));
        }
    }

    private static void add(Map<String, Map<UUID, List<String>>> named, String address, UUID id, String how) {
        named.computeIfAbsent(address.toLowerCase(Locale.ROOT), _ -> new HashMap<>())
                .computeIfAbsent(id, _ -> new ArrayList<>())
                .add(how);
    }

    private Map<String, Map<UUID, Sent>> sent() {
        var address = lower(MESSAGE_RECIPIENT.ADDRESS);
        var seen = visibility.now();
        var sent = new HashMap<String, Map<UUID, Sent>>();
        db.select(address, MESSAGE.RULE_ID, MESSAGE.ROUND_UP_ID, count(), max(MESSAGE.CREATED_AT))
                .from(MESSAGE)
                .join(MESSAGE_RECIPIENT)
                .on(MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID))
                .where(
                        MESSAGE.CREATED_AT.gt(clock.instant().minus(LATELY)),
                        seen.rules(MESSAGE.RULE_ID),
                        seen.definitions(MESSAGE.ROUND_UP_ID),
                        MESSAGE.RULE_ID.isNotNull().or(MESSAGE.ROUND_UP_ID.isNotNull()))
                .groupBy(address, MESSAGE.RULE_ID, MESSAGE.ROUND_UP_ID)
                .forEach(row -> {
                    UUID of = row.value2() != null ? row.value2().value() : row.value3();
                    sent.computeIfAbsent(MailAddress.bare(row.value1()), _ -> new HashMap<>())
                            .merge(of, new Sent(row.value4(), row.value5()), RecipientOverview::both);
                });
        return sent;
    }

    private static Sent both(Sent one, Sent other) {
        var last = one.lastAt() == null
                        || (other.lastAt() != null && other.lastAt().isAfter(one.lastAt()))
                ? other.lastAt()
                : one.lastAt();
        return new Sent(one.messages() + other.messages(), last);
    }
}
