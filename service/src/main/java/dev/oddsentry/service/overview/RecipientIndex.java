package dev.oddsentry.service.overview;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE;
import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;
import static org.jooq.impl.DSL.count;
import static org.jooq.impl.DSL.lower;
import static org.jooq.impl.DSL.max;

import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.MailAddress;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.recipients.Directory;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import org.jooq.Condition;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/**
 * Which rules and round-ups mail which address, and why: from the definitions, and from messages of the last 30 days, since queries and rows
 * may name recipients, too.
 */
@Component
public class RecipientIndex {
    private static final Duration LATELY = Duration.ofDays(30);

    private final Directory directory;
    private final DSLContext db;
    private final Clock clock;

    RecipientIndex(Directory directory, DSLContext db, Clock clock) {
        this.directory = directory;
        this.db = db;
        this.clock = clock;
    }

    /**
     * Why an address is mailed.
     *
     * @param field of the document, such as {@code to}
     * @param part the value of the split; null for all findings
     * @param reference the team, the person or the list that is named in place of the address; null if it is named itself
     */
    public record Reason(
            String field, @Nullable String part, @Nullable String reference) {
        /** As the document has it. */
        String text() {
            String named = part == null ? field : field + " " + part;
            return reference == null ? named : named + ", as " + reference;
        }
    }

    /** The messages of one definition to one address. */
    public record Sent(int messages, @Nullable Instant lastAt) {
        public static final Sent NONE = new Sent(0, null);
    }

    /** By address in lower case, then by definition. */
    public record Index(Map<String, Map<UUID, List<Reason>>> named, Map<String, Map<UUID, Sent>> sent) {
        Set<String> addresses() {
            var all = new TreeSet<>(named.keySet());
            all.addAll(sent.keySet());
            return all;
        }

        /** The definitions that mail the address. */
        public Set<UUID> of(String address) {
            var all = new HashSet<>(named.getOrDefault(address, Map.of()).keySet());
            all.addAll(sent.getOrDefault(address, Map.of()).keySet());
            return all;
        }

        /** Empty where only rows or a query name the address. */
        public List<Reason> reasons(String address, UUID definition) {
            return named.getOrDefault(address, Map.of()).getOrDefault(definition, List.of());
        }

        public Sent sent(String address, UUID definition) {
            return sent.getOrDefault(address, Map.of()).getOrDefault(definition, Sent.NONE);
        }
    }

    /** @param which of the messages count */
    public Index of(List<Current<RuleDefinition>> rules, List<Current<RoundUpDefinition>> roundUps, Condition which) {
        var named = new HashMap<String, Map<UUID, List<Reason>>>();
        for (var rule : rules) name(named, rule.id(), rule.definition().delivery());
        for (var roundUp : roundUps)
            name(named, roundUp.id(), roundUp.definition().to(), "to", null);
        return new Index(named, sent(which));
    }

    private void name(Map<String, Map<UUID, List<Reason>>> named, UUID id, DeliveryDefinition delivery) {
        name(named, id, delivery.recipients().to(), "to", null);
        name(named, id, delivery.recipients().cc(), "cc", null);
        name(named, id, delivery.recipients().bcc(), "bcc", null);
        if (delivery.split() != null)
            delivery.split().to().forEach((value, people) -> name(named, id, people, "split", value));
        if (delivery.escalation() != null) name(named, id, delivery.escalation().to(), "escalation", null);
    }

    /** A team means each of its people. */
    private void name(
            Map<String, Map<UUID, List<Reason>>> named,
            UUID id,
            List<String> people,
            String field,
            @Nullable String part) {
        for (String each : people) {
            var reason = new Reason(field, part, MailAddress.reference(each).isPresent() ? each : null);
            directory.written(List.of(each)).forEach(address -> add(named, MailAddress.bare(address), id, reason));
        }
    }

    private static void add(Map<String, Map<UUID, List<Reason>>> named, String address, UUID id, Reason reason) {
        named.computeIfAbsent(address.toLowerCase(Locale.ROOT), _ -> new HashMap<>())
                .computeIfAbsent(id, _ -> new ArrayList<>())
                .add(reason);
    }

    private Map<String, Map<UUID, Sent>> sent(Condition which) {
        var address = lower(MESSAGE_RECIPIENT.ADDRESS);
        var sent = new HashMap<String, Map<UUID, Sent>>();
        db.select(address, MESSAGE.RULE_ID, MESSAGE.ROUND_UP_ID, count(), max(MESSAGE.CREATED_AT))
                .from(MESSAGE)
                .join(MESSAGE_RECIPIENT)
                .on(MESSAGE_RECIPIENT.MESSAGE_ID.eq(MESSAGE.ID))
                .where(
                        MESSAGE.CREATED_AT.gt(clock.instant().minus(LATELY)),
                        which,
                        MESSAGE.RULE_ID.isNotNull().or(MESSAGE.ROUND_UP_ID.isNotNull()))
                .groupBy(address, MESSAGE.RULE_ID, MESSAGE.ROUND_UP_ID)
                .forEach(row -> {
                    UUID of = row.value2() != null ? row.value2().value() : row.value3();
                    sent.computeIfAbsent(MailAddress.bare(row.value1()), _ -> new HashMap<>())
                            .merge(of, new Sent(row.value4(), row.value5()), RecipientIndex::both);
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
