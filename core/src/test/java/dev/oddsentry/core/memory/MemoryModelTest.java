package dev.oddsentry.core.memory;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.Seeded;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.PendingEffect.EditEffect;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.Span;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/**
 * Random histories of results, marks, edits, failed checks and checks that do not fire, run through memory as a service would keep
 * it, and through {@link PlainModel}, which was written from the design's table; what each would mail is held against the other.
 */
class MemoryModelTest {
    private static final ZoneId ZONE = ZoneId.of("Europe/Oslo");
    private static final int KEYS = 6;
    private static final int CHECKS = 40;

    /** How a rule remembers. */
    record Habits(
            Absence absence,
            int hold,
            int misses,
            int guard,
            Set<UpdateKind> reports,
            @Nullable Integer remindDays,
            boolean full) {
        static Habits any(Random random) {
            var reports = EnumSet.of(UpdateKind.NEW);
            for (var kind : List.of(
                    UpdateKind.RETURNED,
                    UpdateKind.WORSENED,
                    UpdateKind.IMPROVED,
                    UpdateKind.CHANGED,
                    UpdateKind.CLEARED)) {
                if (random.nextBoolean()) reports.add(kind);
            }
            if (random.nextInt(8) == 0) reports.remove(UpdateKind.NEW);
            return new Habits(
                    Absence.values()[random.nextInt(3)],
                    1 + random.nextInt(3),
                    1 + random.nextInt(3),
                    random.nextInt(4),
                    reports,
                    random.nextInt(3) == 0 ? 1 + random.nextInt(3) : null,
                    random.nextInt(4) == 0);
        }
    }

    /** @param severity null for a row that is no exception */
    record Row(int key, @Nullable Severity severity, boolean evaluated, int values) {}

    @Test
    void mailsWhatThePlainModelMails() {
        Seeded.cases(3_000, random -> {
            var habits = Habits.any(random);
            var memory = new Memory(habits);
            var model = new PlainModel(habits);
            var told = new ArrayList<String>();
            Instant slot = Instant.parse("2026-10-20T04:40:00Z");
            var pending = PendingEffect.NONE;
            for (int i = 0; i < CHECKS; i++) {
                slot = slot.plus(Duration.ofHours(1 + random.nextInt(14)));
                if (random.nextInt(9) == 0) continue; // a check that failed changes nothing
                if (random.nextInt(4) == 0) mark(random, slot, memory, model);
                if (random.nextInt(12) == 0)
                    pending = pending.and(new PendingEffect(
                            EditEffect.values()[random.nextInt(4)], ReportChoice.values()[random.nextInt(4)]));
                boolean scheduled = random.nextInt(5) > 0;
                boolean fires = random.nextInt(4) > 0;
                var rows = rows(random);
                var said = memory.check(rows, slot, scheduled, fires, pending);
                assertThat(said)
                        .as("%s, check %d %s of %s after %s", habits, i, pending, rows, told)
                        .isEqualTo(model.check(rows, slot, scheduled, fires, pending));
                told.add(said.toString());
                pending = PendingEffect.NONE;
            }
        });
    }

    private static List<Row> rows(Random random) {
        var rows = new ArrayList<Row>();
        for (int key = 0; key < KEYS; key++) {
            int luck = random.nextInt(10);
            if (luck < 6) rows.add(new Row(key, Severity.values()[random.nextInt(3)], true, random.nextInt(2)));
            else if (luck == 6) rows.add(new Row(key, null, true, 0));
            else if (luck == 7) rows.add(new Row(key, null, false, 0));
        }
        return rows;
    }

    private static void mark(Random random, Instant slot, Memory memory, PlainModel model) {
        int key = random.nextInt(KEYS);
        var kind = Marks.Kind.values()[random.nextInt(3)];
        Instant until = kind != Marks.Kind.SNOOZE && random.nextBoolean()
                ? null
                : slot.plus(Duration.ofHours(random.nextInt(70)));
        memory.mark(key, kind, until);
        model.mark(key, kind, until);
    }

    /** The least memory there is, moved as the service moves its tables: only what moved or stood is looked at. */
    private static final class Memory {
        private final Habits habits;
        private final ReportPolicy reportPlanner;
        private final Map<Digest, StoredFinding> known = new HashMap<>();
        private final Map<Digest, LastReport> reported = new HashMap<>();
        private final Map<Digest, Marks> marks = new HashMap<>();
        private final Set<Digest> standing = new TreeSet<>(java.util.Comparator.comparing(Digest::low));
        private long scheduledBefore;

        Memory(Habits habits) {
            this.habits = habits;
            this.reportPlanner = new ReportPolicy(
                    habits.reports,
                    habits.guard,
                    habits.remindDays == null ? null : Span.of(habits.remindDays, Span.Unit.DAY));
        }

        private static Digest digest(int key) {
            return new Digest(7, key);
        }

        void mark(int key, Marks.Kind kind, @Nullable Instant until) {
            var finding = known.get(digest(key));
            if (finding == null || finding.now().state() == FindingState.CLEARED) return;
            var marks = this.marks.getOrDefault(digest(key), Marks.NONE);
            this.marks.put(
                    digest(key),
                    switch (kind) {
                        case TAKE ->
                            new Marks(
                                    new Marks.Taken(finding.now().severity(), until),
                                    marks.snoozed(),
                                    marks.accepted());
                        case SNOOZE ->
                            new Marks(
                                    marks.taken(),
                                    new Marks.Snoozed(java.util.Objects.requireNonNull(until)),
                                    marks.accepted());
                        case ACCEPT -> new Marks(marks.taken(), marks.snoozed(), new Marks.Accepted(until));
                    });
        }

        Map<Integer, Set<UpdateKind>> check(
                List<Row> rows, Instant slot, boolean scheduled, boolean fires, PendingEffect pending) {
            var rules = new Comparison.Rules(
                    habits.absence,
                    new MinimumDuration.Checks(habits.hold),
                    new MinimumDuration.Checks(habits.misses),
                    habits.guard);
            var tick = new MinimumDuration.Tick(scheduledBefore, scheduled, slot);
            var comparison = new Comparison(
                    KnownTable.of(known.values()), pending.startsOver() ? rules.restarted() : rules, tick);
            var open = new ArrayList<Digest>();
            for (var row : rows) {
                var now = comparison.see(evaluatedRow(row));
                if (now != null && now.state() == FindingState.OPEN) open.add(digest(row.key));
            }
            var candidates = new java.util.LinkedHashSet<Digest>(standing);
            for (var move : comparison.finish()) candidates.add(apply(move));
            candidates.addAll(marks.keySet());
            if (habits.remindDays != null || pending.treatsAsKnown()) candidates.addAll(known.keySet());
            var choice = reportPlanner.choose(
                    candidates.stream().map(this::standing).toList(), new Moment(slot, ZONE), tick, pending);
            if (fires && (habits.full || pending.reportsOpen()))
                choice = reportPlanner.inFull(
                        choice, open.stream().map(this::standing).toList(), slot);
            if (!fires) choice = choice.notFired();
            assertThat(comparison.open())
                    .isEqualTo(known.values().stream()
                            .filter(each -> each.now().state() == FindingState.OPEN)
                            .count());
            return settle(candidates, choice, slot, scheduled);
        }

        private Map<Integer, Set<UpdateKind>> settle(
                Set<Digest> candidates, ReportPolicy.Choice<Digest> choice, Instant slot, boolean scheduled) {
            var said = new TreeMap<Integer, Set<UpdateKind>>();
            for (var told : choice.updates()) {
                reported.put(told.subject(), LastReport.inMessage(told.now(), true, slot));
                said.put((int) told.subject().low(), told.kinds());
            }
            for (var passed : choice.treatedAsKnown())
                reported.put(passed, LastReport.treatedAsKnown(known.get(passed).now(), true, reported.get(passed)));
            standing.removeAll(candidates);
            standing.addAll(choice.unreported());
            for (var ended : choice.ended()) ended.marks().forEach(kind -> unmark(ended.subject(), kind));
            if (scheduled) scheduledBefore++;
            return said;
        }

        private void unmark(Digest key, Marks.Kind kind) {
            var before = marks.get(key);
            marks.put(
                    key,
                    new Marks(
                            kind == Marks.Kind.TAKE ? null : before.taken(),
                            before.snoozed(),
                            kind == Marks.Kind.ACCEPT ? null : before.accepted()));
        }

        private ReportPolicy.Candidate<Digest> standing(Digest key) {
            return new ReportPolicy.Candidate<>(
                    key, known.get(key).now(), reported.get(key), marks.getOrDefault(key, Marks.NONE), true);
        }

        private Digest apply(FindingChange move) {
            if (move instanceof FindingChange.Opened it) {
                var key = it.evaluatedRow().key();
                known.put(key, new StoredFinding(key.low() + 1, key, it.now()));
                return key;
            }
            var before = move.earlier().orElseThrow();
            known.put(before.key(), new StoredFinding(before.id(), before.key(), move.now()));
            return before.key();
        }

        private static EvaluatedRow evaluatedRow(Row row) {
            return new EvaluatedRow(
                    digest(row.key),
                    List.of(row.key),
                    row.severity,
                    row.evaluated,
                    new Digest(9, row.values),
                    List.of(row.key));
        }
    }
}
