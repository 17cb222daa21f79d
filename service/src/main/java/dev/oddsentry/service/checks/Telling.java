package dev.oddsentry.service.checks;

import dev.oddsentry.core.condition.FireWhen;
import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.Known;
import dev.oddsentry.core.memory.Move;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Now;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.memory.State;
import dev.oddsentry.core.memory.Telling.Outcome;
import dev.oddsentry.core.memory.Telling.Standing;
import dev.oddsentry.service.memory.MemoryStore;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Third step: of all differences between now and reported, chooses what is told, and has it written into a message. */
@Component
class Telling {
    private final MemoryStore memory;
    private final Announcing announcing;

    Telling(MemoryStore memory, Announcing announcing) {
        this.memory = memory;
        this.announcing = announcing;
    }

    Told tell(Attempt attempt, Reckoned reckoned) {
        var rule = attempt.rule().definition();
        var audience = memory.audience(attempt.ruleId());
        boolean first = audience.isEmpty();
        var choice = choose(rule, reckoned, first);
        if (choice.told().isEmpty()) return new Told(List.of(), choice.letPass(), null);
        var since = audience.map(MemoryStore.Audience::lastReportSlot).orElse(null);
        return new Told(choice.told(), choice.letPass(), announcing.message(attempt, reckoned, choice.told(), since));
    }

    record Choice(List<Told.Item> told, List<Told.Subject> letPass) {}

    /** @param first whether this is the first good check of the audience */
    Choice choose(RuleDefinition rule, Reckoned reckoned, boolean first) {
        var standings = standings(reckoned);
        var outcome = new dev.oddsentry.core.memory.Telling(rule.memory().report()).choose(standings.stream());
        var letPass = new ArrayList<>(
                outcome.letPass().stream().map(Standing::subject).toList());
        if (first && rule.memory().firstCheck() == FirstCheck.TAKE_AS_KNOWN) {
            outcome.told().forEach(told -> letPass.add(told.subject()));
            standings.stream()
                    .filter(each -> each.now().state() == State.PENDING)
                    .forEach(each -> letPass.add(each.subject()));
            return new Choice(List.of(), letPass);
        }
        // Where it does not fire, the difference stands, and the first later check that fires tells it.
        if (!fires(rule, reckoned, outcome)) return new Choice(List.of(), letPass);
        return switch (rule.memory().mode()) {
            case INCREMENTAL -> new Choice(items(outcome), letPass);
            case FULL -> full(reckoned, open(standings), outcome, letPass);
        };
    }

    private static boolean fires(RuleDefinition rule, Reckoned reckoned, Outcome<Told.Subject> outcome) {
        if (rule.fireWhen() == null) return true;
        var condition = FireWhen.read(rule.fireWhen()).readable();
        if (condition == null) throw new IllegalStateException("saved though unreadable: " + rule.fireWhen());
        try {
            return condition.holds(new Counts(reckoned, outcome));
        } catch (RowFailureException e) {
            throw new CheckFailureException("Whether it fires cannot be reckoned: " + e.getMessage() + ".", e);
        }
    }

    private record Counts(Reckoned reckoned, Outcome<Told.Subject> outcome) implements FireWhen.Counts {
        @Override
        public long exceptions(String severity) {
            return reckoned.exceptions().stream()
                    .map(Sighting::severity)
                    .filter(each ->
                            severity.isEmpty() || (each != null && each.word().equals(severity)))
                    .count();
        }

        @Override
        public long news(String kind) {
            return outcome.told().stream()
                    .filter(told -> kind.isEmpty()
                            || told.kinds().stream()
                                    .anyMatch(each -> each.code().equals(kind)))
                    .count();
        }
    }

    private static List<Told.Item> items(Outcome<Told.Subject> outcome) {
        return outcome.told().stream()
                .map(told -> new Told.Item(told.subject(), told.now().severity(), told.kinds()))
                .toList();
    }

    /** Everything that is open now, whether told before or not; and what is told besides, such as cleared ones. */
    private static Choice full(
            Reckoned reckoned, Set<Digest> open, Outcome<Told.Subject> outcome, List<Told.Subject> letPass) {
        var kinds = new HashMap<Told.Subject, Set<NewsKind>>();
        outcome.told().forEach(told -> kinds.put(told.subject(), told.kinds()));
        var ids = ids(reckoned.known());
        var told = new ArrayList<Told.Item>();
        for (var sighting : reckoned.exceptions()) {
            if (!open.contains(sighting.key())) continue;
            var subject = new Told.Subject(sighting.key(), ids.get(sighting.key()));
            Set<NewsKind> why = kinds.remove(subject);
            told.add(new Told.Item(subject, Objects.requireNonNull(sighting.severity()), why == null ? Set.of() : why));
        }
        if (told.isEmpty()) return new Choice(List.of(), letPass);
        items(outcome).stream()
                .filter(item -> kinds.containsKey(item.subject()))
                .forEach(told::add);
        var subjects = told.stream().map(Told.Item::subject).collect(Collectors.toSet());
        letPass.removeIf(subjects::contains);
        return new Choice(told, letPass);
    }

    private static Map<Digest, @Nullable Long> ids(List<Known> known) {
        var ids = new HashMap<Digest, @Nullable Long>();
        known.forEach(each -> ids.put(each.key(), each.id()));
        return ids;
    }

    /** Every finding after this check: those that moved as they are now, the others as they were. */
    private static List<Standing<Told.Subject>> standings(Reckoned reckoned) {
        var moved = new HashMap<Long, Now>();
        var standings = new ArrayList<Standing<Told.Subject>>();
        for (Move move : reckoned.moves()) {
            if (move instanceof Move.Opened(var sighting, var now))
                standings.add(new Standing<>(new Told.Subject(sighting.key(), null), now, null));
            else move.earlier().ifPresent(before -> moved.put(before.id(), move.now()));
        }
        for (Known known : reckoned.known()) {
            var subject = new Told.Subject(known.key(), known.id());
            standings.add(new Standing<>(subject, moved.getOrDefault(known.id(), known.now()), known.reported()));
        }
        return standings;
    }

    private static Set<Digest> open(List<Standing<Told.Subject>> standings) {
        return standings.stream()
                .filter(standing -> standing.now().state() == State.OPEN)
                .map(standing -> standing.subject().key())
                .collect(Collectors.toSet());
    }

    /** The findings that are open after this check. */
    static Set<Digest> open(Reckoned reckoned) {
        return open(standings(reckoned));
    }
}
