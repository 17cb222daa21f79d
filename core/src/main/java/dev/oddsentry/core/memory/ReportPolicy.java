package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.Span;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Chooses, for one audience, which differences are told, which are let pass, and which stand. If a rule reports any of a finding's
 * kinds of news, all are told; if none, reported moves to now without a word.
 *
 * @param reports the kinds of news that the rule reports
 * @param guard how many slots what became better must stay so before that counts
 * @param remindEvery how long after it was last told an open finding is said again; null for never
 */
public record ReportPolicy(
        Set<UpdateKind> reports, int guard, @Nullable Span remindEvery) {

    /**
     * A finding after this check, as one audience stands to it.
     *
     * @param subject whatever the caller needs to find it again
     * @param here whether it belongs to this audience
     */
    public record Standing<T>(
            T subject, CurrentFinding now, @Nullable LastReport reported, Marks marks, boolean here) {}

    /**
     * @param severity the present one; of a finding that has moved away, the one that was last reported
     * @param differs whether the current state is other than what was reported, also where the rule has no name for it
     */
    public record Told<T>(T subject, CurrentFinding now, Severity severity, Set<UpdateKind> kinds, boolean differs) {
        static <T> Told<T> of(Standing<T> each, Set<UpdateKind> kinds, boolean differs) {
            var reported = each.reported();
            // What has become of it is for those to hear to whom it went.
            var severity = reported != null && kinds.contains(UpdateKind.MOVED)
                    ? reported.severity()
                    : each.now().severity();
            return new Told<>(each.subject(), each.now(), severity, kinds, differs);
        }
    }

    public record Ended<T>(T subject, Set<Marks.Kind> marks) {}

    /**
     * @param told worst first is the renderer's business; here they stand in the order given
     * @param letPass findings whose reported moves to now without a word
     * @param standing findings whose difference stands for a later check, since a mark silences it or the guard runs
     * @param ended marks that the current state has ended
     * @param leftOut how many open ones a mark keeps out of what would be told in full
     */
    public record Choice<T>(List<Told<T>> told, List<T> letPass, List<T> standing, List<Ended<T>> ended, int leftOut) {

        public static <T> Choice<T> nothing() {
            return new Choice<>(List.of(), List.of(), List.of(), List.of(), 0);
        }

        /** Where the rule does not fire: what would be told stands, and nobody is reminded. */
        public Choice<T> notFired() {
            var waiting = new ArrayList<>(standing);
            var passes = new ArrayList<>(letPass);
            for (var each : told) {
                if (!each.differs()) continue;
                (each.kinds().contains(UpdateKind.REMINDER) ? passes : waiting).add(each.subject());
            }
            return new Choice<>(List.of(), passes, waiting, ended, leftOut);
        }
    }

    private static final Set<UpdateKind> REMINDER = Set.of(UpdateKind.REMINDER);

    /**
     * @param candidates every finding that may have something to tell: those that moved, those whose difference stood, and those
     *     that carry a mark; where reminders are wanted, the open ones too
     */
    public <T> Choice<T> choose(
            List<Standing<T>> candidates, Moment moment, MinimumDuration.Tick tick, PendingEffect pending) {
        var told = new ArrayList<Told<T>>();
        var letPass = new ArrayList<T>();
        var standing = new ArrayList<T>();
        var ended = new ArrayList<Ended<T>>();
        var current = candidates.stream()
                .map(each -> withoutEnded(each, moment, tick, ended))
                .toList();
        var endedWithoutWord = ended.stream()
                .filter(each -> each.marks().contains(Marks.Kind.ACCEPT))
                .map(Ended::subject)
                .collect(Collectors.toSet());
        boolean remind = isAnyReminderDue(current, moment);
        for (var each : current) {
            CurrentFinding now = each.now();
            boolean guardOver = isGuardOver(now, tick);
            if (pending.treatsAsKnown()) {
                if (isNotAsReported(each)) letPass.add(each.subject());
                continue;
            }
            var kinds = UpdateDetector.between(now, each.reported(), each.here(), guardOver);
            boolean reminded = remind && isToBeReminded(each, moment);
            if (kinds.isEmpty()) {
                if (waitsForGuard(each)) standing.add(each.subject());
                else if (reminded) told.add(Told.of(each, REMINDER, false));
                continue;
            }
            if (isOver(kinds, pending) || endedWithoutWord.contains(each.subject())) letPass.add(each.subject());
            else if (isWanted(kinds, pending)) {
                if (each.marks().silenceAt(moment.slot())) standing.add(each.subject());
                else told.add(Told.of(each, named(kinds, pending), true));
            } else if (reminded) told.add(Told.of(each, with(named(kinds, pending)), true));
            else letPass.add(each.subject());
        }
        return new Choice<>(told, letPass, standing, ended, 0);
    }

    /** A mark that the current state ends counts no more at this very check. */
    private <T> Standing<T> withoutEnded(
            Standing<T> each, Moment moment, MinimumDuration.Tick tick, List<Ended<T>> ended) {
        var over = each.marks().endedBy(each.now(), isGuardOver(each.now(), tick), moment.slot());
        if (over.isEmpty()) return each;
        ended.add(new Ended<>(each.subject(), over));
        return new Standing<>(
                each.subject(), each.now(), each.reported(), each.marks().without(over), each.here());
    }

    /**
     * The same, and besides every other open finding of the present result, with no kind of news.
     *
     * @param open in the order of the result
     */
    public <T> Choice<T> inFull(Choice<T> choice, List<Standing<T>> open, Instant slot) {
        var told = new ArrayList<>(choice.told());
        var subjects = new HashSet<T>();
        told.forEach(each -> subjects.add(each.subject()));
        int leftOut = 0;
        for (var each : open) {
            if (each.marks().silenceAt(slot)) leftOut++;
            else if (subjects.add(each.subject())) told.add(Told.of(each, Set.of(), false));
        }
        var letPass = choice.letPass().stream()
                .filter(subject -> !subjects.contains(subject))
                .toList();
        return new Choice<>(told, letPass, choice.standing(), choice.ended(), leftOut);
    }

    private static boolean waitsForGuard(Standing<?> each) {
        return !UpdateDetector.between(each.now(), each.reported(), each.here(), true)
                .isEmpty();
    }

    /** Cleared, since nobody asks for it any more. */
    private static boolean isOver(Set<UpdateKind> kinds, PendingEffect pending) {
        return pending.clearsSilently() && kinds.contains(UpdateKind.CLEARED);
    }

    private boolean isWanted(Set<UpdateKind> kinds, PendingEffect pending) {
        return named(kinds, pending).stream().anyMatch(reports::contains);
    }

    private static Set<UpdateKind> with(Set<UpdateKind> kinds) {
        var all = EnumSet.of(UpdateKind.REMINDER);
        all.addAll(kinds);
        return all;
    }

    /** Other watched columns, or other conditions that name them, give other fingerprints, which is no news of the finding. */
    private static Set<UpdateKind> named(Set<UpdateKind> kinds, PendingEffect pending) {
        boolean otherColumns = pending.watchesOtherColumns();
        if (!otherColumns) return kinds;
        var named = EnumSet.noneOf(UpdateKind.class);
        named.addAll(kinds);
        named.remove(UpdateKind.CHANGED);
        return named;
    }

    private static boolean isNotAsReported(Standing<?> each) {
        LastReport as = LastReport.letPass(each.now(), each.here(), each.reported());
        boolean neverThere = each.reported() == null && each.now().state() == FindingState.CLEARED;
        return !neverThere && !as.equals(each.reported());
    }

    /** True where it did not become better, or has been better for as long as the guard wants. */
    private boolean isGuardOver(CurrentFinding now, MinimumDuration.Tick tick) {
        return now.better() == null || tick.isGuardOver(now.better(), guard);
    }

    /** One audience's reminders fall due together: with the first that is due, all are said. */
    private boolean isAnyReminderDue(List<? extends Standing<?>> candidates, Moment moment) {
        if (remindEvery == null) return false;
        return candidates.stream()
                .filter(each -> isToBeReminded(each, moment))
                .map(each -> each.reported() == null ? null : each.reported().toldAt())
                .anyMatch(toldAt -> toldAt != null && isDue(toldAt, remindEvery, moment));
    }

    private static boolean isDue(Instant toldAt, Span every, Moment moment) {
        return !every.addTo(toldAt.atZone(moment.zone())).toInstant().isAfter(moment.slot());
    }

    private static boolean isToBeReminded(Standing<?> each, Moment moment) {
        return each.here()
                && each.now().state() == FindingState.OPEN
                && each.reported() != null
                && each.reported().toldAt() != null
                && !each.marks().stopRemindersAt(moment.slot());
    }
}
