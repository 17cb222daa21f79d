package dev.oddsentry.cli.rules;

import dev.oddsentry.contract.RuleSummary;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * Which rules of a list are wanted, as the console's list finds them; {@code contract/rule-filters.json} holds both to it.
 *
 * @param words each must be found somewhere in a rule; {@code column:delay_min} is looked for among its columns alone
 */
record RuleFilter(
        List<String> words,
        @Nullable State state,
        @Nullable Outcome outcome,
        @Nullable String label,
        @Nullable String owner,
        boolean open,
        @Nullable Order order) {
    enum State {
        DRAFT,
        ACTIVE,
        PAUSED
    }

    /** Of the last check. */
    enum Outcome {
        FAILED("FAILED", "PARTLY_FAILED", "AWAITING_APPROVAL", "INCOMPLETE"),
        FIRED("FIRED"),
        QUIET("QUIET"),
        NEVER;

        private final Set<String> states;

        Outcome(String... states) {
            this.states = Set.of(states);
        }

        boolean isOf(RuleSummary rule) {
            return this == NEVER
                    ? rule.latest().isEmpty()
                    : !rule.latest().isEmpty()
                            && states.contains(rule.latest().getFirst().state());
        }
    }

    enum Order {
        /** The soonest check first. */
        NEXT(Comparator.comparing(RuleSummary::nextSlot, Comparator.nullsLast(Comparator.naturalOrder()))),
        /** The most open findings first. */
        OPEN(Comparator.<RuleSummary>comparingInt(rule -> rule.open().values().stream()
                        .mapToInt(Integer::intValue)
                        .sum())
                .reversed()),
        /** The longest ago first. */
        LAST(Comparator.comparing(Order::lastSlot, Comparator.nullsLast(Comparator.naturalOrder())));

        private final Comparator<RuleSummary> by;

        Order(Comparator<RuleSummary> by) {
            this.by = by;
        }

        private static @Nullable Instant lastSlot(RuleSummary rule) {
            return rule.latest().isEmpty() ? null : rule.latest().getFirst().slot();
        }
    }

    /** The filter of the part of the console's address behind the question mark, as it is saved there. */
    static RuleFilter saved(String search) {
        var fields = new LinkedHashMap<String, String>();
        for (var field : search.split("&")) {
            int equals = field.indexOf('=');
            if (equals > 0)
                fields.put(
                        field.substring(0, equals),
                        URLDecoder.decode(field.substring(equals + 1), StandardCharsets.UTF_8));
        }
        return new RuleFilter(
                Stream.of(fields.getOrDefault("q", "").split("\\s+"))
                        .filter(word -> !word.isEmpty())
                        .toList(),
                named(State.values(), fields.get("state")),
                named(Outcome.values(), fields.get("outcome")),
                fields.get("label"),
                fields.get("owner"),
                "yes".equals(fields.get("open")),
                named(Order.values(), fields.get("sort")));
    }

    private static <T extends Enum<T>> @Nullable T named(T[] all, @Nullable String name) {
        return Stream.of(all)
                .filter(each -> each.name().equalsIgnoreCase(name))
                .findFirst()
                .orElse(null);
    }

    /** This filter with what another says instead where it says something, and the words of both. */
    RuleFilter with(RuleFilter other) {
        return new RuleFilter(
                Stream.concat(words.stream(), other.words.stream()).toList(),
                other.state == null ? state : other.state,
                other.outcome == null ? outcome : other.outcome,
                other.label == null ? label : other.label,
                other.owner == null ? owner : other.owner,
                open || other.open,
                other.order == null ? order : other.order);
    }

    private static final Map<String, Function<RuleSummary, Collection<String>>> KINDS = new LinkedHashMap<>();

    static {
        KINDS.put("name", rule -> List.of(rule.name(), rule.title()));
        KINDS.put("query", rule -> List.of(rule.query()));
        KINDS.put("column", RuleSummary::columns);
        KINDS.put("source", rule -> List.of(rule.source()));
        KINDS.put("threshold", RuleSummary::thresholds);
        KINDS.put(
                "to",
                rule -> Stream.concat(rule.named().stream(), rule.to().stream()).toList());
        KINDS.put("label", RuleSummary::labels);
        KINDS.put("owner", rule -> List.of(rule.owner()));
        KINDS.put("schedule", rule -> List.of(rule.schedule()));
        KINDS.put("format", RuleSummary::formats);
        KINDS.put("split", rule -> Stream.ofNullable(rule.splitBy()).toList());
        KINDS.put("copied", rule -> Stream.ofNullable(rule.copiedFrom()).toList());
    }

    List<RuleSummary> of(List<RuleSummary> rules) {
        var found = rules.stream().filter(this::finds);
        return (order == null ? found : found.sorted(order.by)).toList();
    }

    private boolean finds(RuleSummary rule) {
        return words.stream().allMatch(word -> has(rule, word.toLowerCase(Locale.ROOT)))
                && (state == null || state.name().equals(rule.state()))
                && (outcome == null || outcome.isOf(rule))
                && (label == null || rule.labels().contains(label))
                && (owner == null || rule.owner().equals(owner))
                && (!open || !rule.open().isEmpty());
    }

    private static boolean has(RuleSummary rule, String word) {
        int colon = word.indexOf(':');
        var kind = colon < 0 ? null : KINDS.get(word.substring(0, colon));
        String sought = kind == null ? word : word.substring(colon + 1);
        var texts = kind == null
                ? KINDS.values().stream().flatMap(each -> each.apply(rule).stream())
                : kind.apply(rule).stream();
        return texts.anyMatch(text -> text.toLowerCase(Locale.ROOT).contains(sought));
    }
}
