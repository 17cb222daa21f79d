package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.PendingEffect.EditEffect;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import java.time.Instant;
import java.time.ZoneId;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Memory as the design's table tells it, one finding at a time and every one at every check, with counters instead of ordinals. Slow
 * and plain on purpose; it shares no code with what it is held against but the names of states and news.
 */
final class PlainModel {
    private static final ZoneId ZONE = ZoneId.of("Europe/Oslo");

    private final MemoryModelTest.Habits habits;
    private final Map<Integer, Finding> findings = new TreeMap<>();
    /** Of this check, what no one wants to hear of itself. */
    private final Map<Integer, Set<UpdateKind>> passed = new HashMap<>();

    private int slot;

    PlainModel(MemoryModelTest.Habits habits) {
        this.habits = habits;
    }

    private static final class Finding {
        @Nullable
        FindingState now;

        Severity severity = Severity.NOTICE;
        int values;
        /** Good scheduled checks that saw it, or missed it, in a row; at least 1 from the first. */
        int firstHeld;

        int firstMissed;
        boolean missing;
        int betterAt;
        boolean better;

        @Nullable
        FindingState toldState;

        Severity toldSeverity = Severity.NOTICE;
        int toldValues;

        @Nullable
        Instant toldAt;

        @Nullable
        Severity takenAt;

        @Nullable
        Instant takenUntil;

        @Nullable
        Instant snoozedUntil;

        boolean accepted;

        @Nullable
        Instant acceptedUntil;

        boolean isTaken(Instant at) {
            return takenAt != null && (takenUntil == null || at.isBefore(takenUntil));
        }

        boolean isAccepted(Instant at) {
            return accepted && (acceptedUntil == null || at.isBefore(acceptedUntil));
        }

        boolean isSilent(Instant at) {
            return isAccepted(at) || (snoozedUntil != null && at.isBefore(snoozedUntil));
        }
    }

    void mark(int key, Marks.Kind kind, @Nullable Instant until) {
        var finding = findings.get(key);
        if (finding == null || finding.now == null || finding.now == FindingState.CLEARED) return;
        switch (kind) {
            case TAKE -> {
                finding.takenAt = finding.severity;
                finding.takenUntil = until;
            }
            case SNOOZE -> finding.snoozedUntil = until;
            case ACCEPT -> {
                finding.accepted = true;
                finding.acceptedUntil = until;
            }
        }
    }

    Map<Integer, Set<UpdateKind>> check(
            Iterable<MemoryModelTest.Row> rows, Instant at, boolean scheduled, boolean fires, PendingEffect pending) {
        // The number of the last good scheduled slot, this one included if it is one; what starts on demand counts from
        // the next.
        int present = scheduled ? slot + 1 : slot;
        int first = slot + 1;
        var byKey = new HashMap<Integer, MemoryModelTest.Row>();
        rows.forEach(row -> byKey.put(row.key(), row));
        byKey.keySet().forEach(key -> findings.computeIfAbsent(key, _ -> new Finding()));
        findings.forEach((key, finding) -> move(finding, byKey.get(key), present, first, pending));
        var said = fires ? tell(byKey, at, present, pending) : silence(at, present, pending);
        if (scheduled) slot++;
        return said;
    }

    private void move(
            Finding finding, MemoryModelTest.@Nullable Row row, int present, int first, PendingEffect pending) {
        if (row != null && row.severity() != null) seen(finding, row, row.severity(), present, first);
        else if (row != null && row.evaluated()) notSeen(finding, present, first, false, pending);
        else if (row == null) {
            var absence = pending.edit() == EditEffect.OTHER_KEY ? Absence.CLEARS : habits.absence();
            if (finding.now == FindingState.PENDING) notSeen(finding, present, first, true, pending);
            else if (finding.now == FindingState.OPEN && absence == Absence.CLEARS)
                notSeen(finding, present, first, true, pending);
            else if (finding.now == FindingState.OPEN && absence == Absence.AGES_OUT) {
                finding.now = FindingState.AGED_OUT;
                finding.missing = false;
            }
        }
    }

    private void seen(Finding finding, MemoryModelTest.Row row, Severity severity, int present, int first) {
        boolean quick = finding.now == FindingState.CLEARED && finding.better && !guardOver(finding, present);
        boolean unknown = finding.now == null || (finding.now == FindingState.CLEARED && !quick);
        boolean fell = !unknown && finding.now != FindingState.PENDING && severity.compareTo(finding.severity) < 0;
        boolean rose = severity.compareTo(finding.severity) > 0;
        if (unknown) {
            finding.now = FindingState.PENDING;
            finding.firstHeld = first;
            finding.better = false;
        } else if (finding.now != FindingState.PENDING) {
            finding.now = FindingState.OPEN;
            if (quick || rose) finding.better = false;
            if (fell) {
                finding.better = true;
                finding.betterAt = first;
            }
        }
        finding.severity = severity;
        finding.values = row.values();
        finding.missing = false;
        boolean held = habits.hold() == 1 || present - finding.firstHeld + 1 >= habits.hold();
        if (finding.now == FindingState.PENDING && held) finding.now = FindingState.OPEN;
    }

    private void notSeen(Finding finding, int present, int first, boolean absent, PendingEffect pending) {
        if (finding.now == null || finding.now == FindingState.CLEARED) return;
        if (!finding.missing) {
            finding.missing = true;
            finding.firstMissed = first;
        }
        int misses = pending.edit() == EditEffect.OTHER_KEY ? 1 : habits.misses();
        boolean over = misses == 1 || present - finding.firstMissed + 1 >= misses;
        if (finding.now == FindingState.AGED_OUT && !absent) over = true;
        if (!over) return;
        finding.better = finding.now != FindingState.PENDING;
        finding.betterAt = first;
        finding.now = FindingState.CLEARED;
        finding.missing = false;
    }

    private boolean guardOver(Finding finding, int present) {
        return !finding.better || habits.guard() == 0 || present - finding.betterAt >= habits.guard();
    }

    private Map<Integer, Set<UpdateKind>> silence(Instant at, int present, PendingEffect pending) {
        settle(at, present, pending);
        return Map.of();
    }

    private Map<Integer, Set<UpdateKind>> tell(
            Map<Integer, MemoryModelTest.Row> rows, Instant at, int present, PendingEffect pending) {
        var waiting = settle(at, present, pending);
        boolean remind = habits.remindDays() != null
                && findings.values().stream().anyMatch(each -> mayRemind(each, at) && isDue(each, at));
        var said = new TreeMap<Integer, Set<UpdateKind>>();
        findings.forEach((key, finding) -> {
            var kinds = waiting.getOrDefault(key, Set.of());
            boolean settled = waiting.get(key) == null && !finding.isSilent(at);
            boolean reminded = remind
                    && settled
                    && mayRemind(finding, at)
                    && isLikeTold(finding)
                    && pending.report() != ReportChoice.TREAT_AS_KNOWN;
            boolean present1 =
                    rows.containsKey(key) && rows.get(key).severity() != null && finding.now == FindingState.OPEN;
            boolean inFull =
                    (habits.full() || pending.report() == ReportChoice.OPEN) && present1 && !finding.isSilent(at);
            if (!kinds.isEmpty()) said.put(key, kinds);
            else if (reminded) {
                var names = EnumSet.of(UpdateKind.REMINDER);
                names.addAll(passed.getOrDefault(key, Set.of()));
                said.put(key, names);
            } else if (inFull) said.put(key, Set.of());
        });
        said.keySet().forEach(key -> {
            report(findings.get(key));
            findings.get(key).toldAt = at;
        });
        return said;
    }

    private static boolean mayRemind(Finding finding, Instant at) {
        return finding.now == FindingState.OPEN
                && finding.toldAt != null
                && !finding.isTaken(at)
                && !finding.isSilent(at);
    }

    private boolean isDue(Finding finding, Instant at) {
        int days = habits.remindDays() == null ? 0 : habits.remindDays();
        return finding.toldAt != null
                && !finding.toldAt.atZone(ZONE).plusDays(days).toInstant().isAfter(at);
    }

    /** Nothing differs, not even what a guard holds back still. */
    private static boolean isLikeTold(Finding finding) {
        return finding.toldState != FindingState.CLEARED
                && finding.severity == finding.toldSeverity
                && finding.values == finding.toldValues;
    }

    /** Lets pass what is to pass, ends marks, and gives the kinds of what waits to be told, if it fires. */
    private Map<Integer, Set<UpdateKind>> settle(Instant at, int present, PendingEffect pending) {
        var waiting = new HashMap<Integer, Set<UpdateKind>>();
        passed.clear();
        findings.forEach((key, finding) -> {
            if (finding.now == null) return;
            boolean gone = finding.now == FindingState.CLEARED && guardOver(finding, present);
            boolean wasAccepted = finding.isAccepted(at);
            if (finding.takenAt != null && (gone || finding.severity.compareTo(finding.takenAt) > 0))
                finding.takenAt = null;
            if (gone && wasAccepted) finding.accepted = false;
            if (pending.report() == ReportChoice.TREAT_AS_KNOWN) {
                if (finding.toldState != null || finding.now != FindingState.CLEARED) report(finding);
                return;
            }
            var kinds = kinds(finding, present);
            if (kinds.isEmpty()) return;
            boolean asksNoMore =
                    (pending.edit() == EditEffect.OTHER_CONDITIONS || pending.edit() == EditEffect.OTHER_KEY)
                            && kinds.contains(UpdateKind.CLEARED);
            if (pending.edit() == EditEffect.OTHER_COLUMNS || pending.edit() == EditEffect.OTHER_CONDITIONS)
                kinds.remove(UpdateKind.CHANGED);
            boolean wanted = kinds.stream().anyMatch(habits.reports()::contains);
            if (!wanted && !asksNoMore) passed.put(key, kinds);
            if (!wanted || asksNoMore || (gone && wasAccepted)) report(finding);
            else if (!finding.isSilent(at)) waiting.put(key, kinds);
        });
        return waiting;
    }

    private EnumSet<UpdateKind> kinds(Finding finding, int present) {
        var kinds = EnumSet.noneOf(UpdateKind.class);
        boolean told = finding.toldState != null;
        boolean toldOpen = told && finding.toldState != FindingState.CLEARED;
        boolean over = guardOver(finding, present);
        if (finding.now == FindingState.CLEARED && toldOpen && over) kinds.add(UpdateKind.CLEARED);
        if (finding.now != FindingState.OPEN && finding.now != FindingState.AGED_OUT) return kinds;
        if (!told) {
            kinds.add(UpdateKind.NEW);
            return kinds;
        }
        if (!toldOpen) kinds.add(UpdateKind.RETURNED);
        int rise = finding.severity.compareTo(finding.toldSeverity);
        if (rise > 0) kinds.add(UpdateKind.WORSENED);
        if (rise < 0 && over && finding.now == FindingState.OPEN) kinds.add(UpdateKind.IMPROVED);
        if (finding.values != finding.toldValues) kinds.add(UpdateKind.CHANGED);
        return kinds;
    }

    private static void report(Finding finding) {
        finding.toldState = finding.now == FindingState.PENDING ? FindingState.OPEN : finding.now;
        finding.toldSeverity = finding.severity;
        finding.toldValues = finding.values;
    }
}
