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
 * Decides, for one audience, which updates are reported, treated as known, or stay unreported. If the rule reports any of a finding's
 * kinds of update, all are reported; if none, the finding is recorded as reported without a message.
 *
 * @param reports the kinds of update that the rule reports
 * @param confirmAfter the number of slots for which a finding must stay cleared or improved before that counts
 * @param remindEvery how long after its last report an open finding is reported again; null for never
 */
public record ReportPolicy(
        Set<UpdateKind> reports, int confirmAfter, @Nullable Span remindEvery) {

    /**
     * A finding after this check, and its last report to one audience.
     *
     * @param subject what the caller identifies it by
     * @param here whether it belongs to this audience
     */
    public record Candidate<T>(
            T subject, CurrentFinding now, @Nullable LastReport reported, Marks marks, boolean here) {}

    /**
     * @param severity the present one; of a finding that has moved away, the one that was last reported
     * @param differs whether the current state is other than what was reported, also where the rule has no name for it
     */
    public record Update<T>(T subject, CurrentFinding now, Severity severity, Set<UpdateKind> kinds, boolean differs) {
        static <T> Update<T> of(Candidate<T> each, Set<UpdateKind> kinds, boolean differs) {
            var reported = each.reported();
            // Its further course is reported to the audience that it moved to.
            var severity = reported != null && kinds.contains(UpdateKind.MOVED)
                    ? reported.severity()
                    : each.now().severity();
            return new Update<>(each.subject(), each.now(), severity, kinds, differs);
        }
    }

    public record Ended<T>(T subject, Set<Marks.Kind> marks) {}

    /**
     * @param updates in the order given; the renderer sorts them
     * @param treatedAsKnown findings recorded as reported without a message
     * @param unreported findings whose updates wait for a later check, because handling silences them or {@code confirm_after} runs
     * @param ended handling that the current state has ended
     * @param leftOut the number of open findings that handling keeps out of a full report
     */
    public record Choice<T>(
            List<Update<T>> updates, List<T> treatedAsKnown, List<T> unreported, List<Ended<T>> ended, int leftOut) {

        public static <T> Choice<T> nothing() {
            return new Choice<>(List.of(), List.of(), List.of(), List.of(), 0);
        }

        /** For a rule that does not fire: updates stay unreported, and there are no reminders. */
        public Choice<T> notFired() {
            var waiting = new ArrayList<>(unreported);
            var passes = new ArrayList<>(treatedAsKnown);
            for (var each : updates) {
                if (!each.differs()) continue;
                (each.kinds().contains(UpdateKind.REMINDER) ? passes : waiting).add(each.subject());
            }
            return new Choice<>(List.of(), passes, waiting, ended, leftOut);
        }
    }

    private static final Set<UpdateKind> REMINDER = Set.of(UpdateKind.REMINDER);

    /**
     * @param candidates every finding that may have an update: those that changed, those with unreported updates, and those
     *     with handling; with reminders, all open ones
     */
    public <T> Choice<T> choose(
            List<Candidate<T>> candidates, Moment moment, MinimumDuration.Tick tick, PendingEffect pending) {
        var updates = new ArrayList<Update<T>>();
        var treatedAsKnown = new ArrayList<T>();
        var unreported = new ArrayList<T>();
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
            boolean confirmed = isConfirmed(now, tick);
            if (pending.treatsAsKnown()) {
                if (isNotAsReported(each)) treatedAsKnown.add(each.subject());
                continue;
            }
            var kinds = UpdateDetector.between(now, each.reported(), each.here(), confirmed);
            boolean reminded = remind && isToBeReminded(each, moment);
            if (kinds.isEmpty()) {
                if (waitsForConfirmation(each)) unreported.add(each.subject());
                else if (reminded) updates.add(Update.of(each, REMINDER, false));
                continue;
            }
            if (isOver(kinds, pending) || endedWithoutWord.contains(each.subject())) treatedAsKnown.add(each.subject());
            else if (isWanted(kinds, pending)) {
                if (each.marks().silenceAt(moment.slot())) unreported.add(each.subject());
                else updates.add(Update.of(each, named(kinds, pending), true));
            } else if (reminded) updates.add(Update.of(each, with(named(kinds, pending)), true));
            else treatedAsKnown.add(each.subject());
        }
        return new Choice<>(updates, treatedAsKnown, unreported, ended, 0);
    }

    /** Handling that the current state ends no longer counts at this check. */
    private <T> Candidate<T> withoutEnded(
            Candidate<T> each, Moment moment, MinimumDuration.Tick tick, List<Ended<T>> ended) {
        var over = each.marks().endedBy(each.now(), isConfirmed(each.now(), tick), moment.slot());
        if (over.isEmpty()) return each;
        ended.add(new Ended<>(each.subject(), over));
        return new Candidate<>(
                each.subject(), each.now(), each.reported(), each.marks().without(over), each.here());
    }

    /**
     * The same, with every other open finding of the present result, without a kind of update.
     *
     * @param open in the order of the result
     */
    public <T> Choice<T> inFull(Choice<T> choice, List<Candidate<T>> open, Instant slot) {
        var updates = new ArrayList<>(choice.updates());
        var subjects = new HashSet<T>();
        updates.forEach(each -> subjects.add(each.subject()));
        int leftOut = 0;
        for (var each : open) {
            if (each.marks().silenceAt(slot)) leftOut++;
            else if (subjects.add(each.subject())) updates.add(Update.of(each, Set.of(), false));
        }
        var treatedAsKnown = choice.treatedAsKnown().stream()
                .filter(subject -> !subjects.contains(subject))
                .toList();
        return new Choice<>(updates, treatedAsKnown, choice.unreported(), choice.ended(), leftOut);
    }

    private static boolean waitsForConfirmation(Candidate<?> each) {
        return !UpdateDetector.between(each.now(), each.reported(), each.here(), true)
                .isEmpty();
    }

    /** Cleared by an edit, not because it was fixed. */
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

    /** Other watched columns, or other conditions that name them, give other fingerprints, which is not an update of the finding. */
    private static Set<UpdateKind> named(Set<UpdateKind> kinds, PendingEffect pending) {
        boolean otherColumns = pending.watchesOtherColumns();
        if (!otherColumns) return kinds;
        var named = EnumSet.noneOf(UpdateKind.class);
        named.addAll(kinds);
        named.remove(UpdateKind.CHANGED);
        return named;
    }

    private static boolean isNotAsReported(Candidate<?> each) {
        LastReport as = LastReport.treatedAsKnown(each.now(), each.here(), each.reported());
        boolean neverThere = each.reported() == null && each.now().state() == FindingState.CLEARED;
        return !neverThere && !as.equals(each.reported());
    }

    /** True where it did not become better, or has been better for as long as the confirmAfter wants. */
    private boolean isConfirmed(CurrentFinding now, MinimumDuration.Tick tick) {
        return now.better() == null || tick.isConfirmed(now.better(), confirmAfter);
    }

    /** Reminders of one audience are due together: with the first that is due, all are sent. */
    private boolean isAnyReminderDue(List<? extends Candidate<?>> candidates, Moment moment) {
        if (remindEvery == null) return false;
        return candidates.stream()
                .filter(each -> isToBeReminded(each, moment))
                .map(each -> each.reported() == null ? null : each.reported().reportedAt())
                .anyMatch(reportedAt -> reportedAt != null && isDue(reportedAt, remindEvery, moment));
    }

    private static boolean isDue(Instant reportedAt, Span every, Moment moment) {
        return !every.addTo(reportedAt.atZone(moment.zone())).toInstant().isAfter(moment.slot());
    }

    private static boolean isToBeReminded(Candidate<?> each, Moment moment) {
        return each.here()
                && each.now().state() == FindingState.OPEN
                && each.reported() != null
                && each.reported().reportedAt() != null
                && !each.marks().stopRemindersAt(moment.slot());
    }
}
