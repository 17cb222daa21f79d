package dev.oddsentry.service.checks;

import dev.oddsentry.core.condition.FireWhen;
import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.Move;
import dev.oddsentry.core.memory.Now;
import dev.oddsentry.core.memory.State;
import dev.oddsentry.core.memory.Telling.Choice;
import dev.oddsentry.core.memory.Telling.Standing;
import dev.oddsentry.core.memory.Transition;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.memory.MemoryStore.MayTell;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
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
        var told = choose(reckoned, new StoredAudience(memory, attempt.ruleId()));
        if (told.told().isEmpty()) return told;
        var since = memory.audience(attempt.ruleId())
                .map(MemoryStore.Audience::lastReportSlot)
                .orElse(null);
        return told.with(announcing.message(attempt, reckoned, told, since));
    }

    /** What a check tells this audience, without the message. */
    Told choose(Reckoned reckoned, Audience audience) {
        var question = reckoned.question();
        var habits = question.rule().memory();
        var transition = transition(question, audience.isNew());
        var core = new dev.oddsentry.core.memory.Telling(habits.report(), habits.guard(), habits.remindEvery());
        var considered = considered(reckoned, audience, transition, habits.remindEvery());
        var choice = core.choose(considered, question.moment(), question.tick(), transition);
        boolean full = habits.mode() == RuleDefinition.Mode.FULL || transition == Transition.TELL_OPEN;
        if (!fires(reckoned, choice)) choice = choice.notFired();
        else if (full) {
            var all = core.inFull(
                    choice, open(reckoned, audience.marks()), question.moment().slot());
            // A full report without an open exception would say nothing of what the rule asks for.
            choice = all.told().stream().anyMatch(each -> each.now().state() == State.OPEN) ? all : choice.notFired();
        }
        return Told.of(choice, order(reckoned, choice));
    }

    private static Transition transition(Question question, boolean first) {
        boolean known = first && question.rule().memory().firstCheck() == FirstCheck.TAKE_AS_KNOWN;
        return known && question.transition() == Transition.ORDINARY ? Transition.TAKE_AS_KNOWN : question.transition();
    }

    /** Every finding that may have something to tell: those that moved as they are now, the others as they were. */
    private static List<Standing<Told.Subject>> considered(
            Reckoned reckoned, Audience audience, Transition transition, @Nullable Span remindEvery) {
        var standings = new ArrayList<Standing<Told.Subject>>();
        var moved = new HashMap<Long, Now>();
        for (Move move : reckoned.moves()) {
            if (move instanceof Move.Opened(var sighting, var now))
                standings.add(new Standing<>(new Told.Subject(sighting.key(), null), now, null, Marks.NONE, true));
            else move.earlier().ifPresent(before -> moved.put(before.id(), move.now()));
        }
        boolean remind = remindEvery != null && isReminderTime(reckoned, audience, remindEvery);
        for (var before : audience.mayTell(moved.keySet(), new MayTell(transition.takesAsKnown(), remind))) {
            var known = before.known();
            standings.add(new Standing<>(
                    new Told.Subject(known.key(), known.id()),
                    moved.getOrDefault(known.id(), known.now()),
                    before.reported(),
                    before.marks(),
                    true));
        }
        return standings;
    }

    private static boolean isReminderTime(Reckoned reckoned, Audience audience, Span every) {
        var moment = reckoned.question().moment();
        // An hour more than needed, since a day may be shorter; what is due exactly is for core to say.
        return audience.isAnyToldBefore(
                every.negated().addTo(moment.local()).plusHours(2).toInstant());
    }

    private static List<Standing<Told.Subject>> open(Reckoned reckoned, Map<Long, Marks> marks) {
        var open = new ArrayList<Standing<Told.Subject>>();
        reckoned.exceptions().forEach(sighting -> {
            if (reckoned.pending().contains(sighting.key())) return;
            Long id = reckoned.idOf(sighting.key());
            var now = Now.of(State.OPEN, Objects.requireNonNull(sighting.severity()), sighting.fingerprint());
            var said = id == null ? Marks.NONE : marks.getOrDefault(id, Marks.NONE);
            open.add(new Standing<>(new Told.Subject(sighting.key(), id), now, null, said, true));
        });
        return open;
    }

    /** In the order of the result; what is no longer in it comes last. */
    private static Comparator<Told.Item> order(Reckoned reckoned, Choice<Told.Subject> choice) {
        var told = new HashSet<Digest>();
        choice.told().forEach(each -> told.add(each.subject().key()));
        var places = new HashMap<Digest, Integer>();
        if (!told.isEmpty()) {
            reckoned.exceptions().forEach(told::contains, sighting -> places.put(sighting.key(), places.size()));
        }
        return Comparator.comparing(item -> places.getOrDefault(item.subject().key(), Integer.MAX_VALUE));
    }

    private static boolean fires(Reckoned reckoned, Choice<Told.Subject> choice) {
        String fireWhen = reckoned.question().rule().fireWhen();
        if (fireWhen == null) return true;
        var condition = FireWhen.read(fireWhen).readable();
        if (condition == null) throw new IllegalStateException("saved though unreadable: " + fireWhen);
        try {
            return condition.holds(new Counts(reckoned, choice));
        } catch (RowFailureException e) {
            throw new CheckFailureException("Whether it fires cannot be reckoned: " + e.getMessage() + ".", e);
        }
    }

    private record Counts(Reckoned reckoned, Choice<Told.Subject> choice) implements FireWhen.Counts {
        @Override
        public long exceptions(String severity) {
            if (severity.isEmpty()) return reckoned.exceptions().count();
            return Arrays.stream(Severity.values())
                    .filter(each -> each.word().equals(severity))
                    .mapToLong(each -> reckoned.exceptions().count(each))
                    .sum();
        }

        @Override
        public long news(String kind) {
            return choice.told().stream()
                    .filter(told -> kind.isEmpty()
                            || told.kinds().stream()
                                    .anyMatch(each -> each.code().equals(kind)))
                    .count();
        }
    }
}
