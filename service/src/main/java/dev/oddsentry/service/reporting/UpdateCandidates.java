package dev.oddsentry.service.reporting;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.CurrentFinding;
import dev.oddsentry.core.memory.FindingChange;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.Moves;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.ReportPolicy.Candidate;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore.Before;
import dev.oddsentry.service.memory.MemoryStore.MayTell;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/** Findings that may have an update, each with its current state and the last report to each audience. */
final class UpdateCandidates {
    private final Evaluation evaluation;
    private final Map<Digest, AudienceKey> present = new HashMap<>();
    private final Map<AudienceKey, OfAudience> byAudience = new LinkedHashMap<>();

    private UpdateCandidates(Evaluation evaluation) {
        this.evaluation = evaluation;
    }

    /** What is considered for one audience. */
    static final class OfAudience {
        private final List<Candidate<ReportPlan.Subject>> standings = new ArrayList<>();
        private int openedMore;
        private boolean takesOpened;

        List<Candidate<ReportPlan.Subject>> list() {
            return standings;
        }

        /** Whether findings that open at this check are treated as known; they are not in the list. */
        boolean takesOpened() {
            return takesOpened;
        }

        /** By how many its open findings grew. */
        int openedMore() {
            return openedMore;
        }
    }

    static Map<AudienceKey, OfAudience> of(Evaluation evaluation, Audiences audiences, PendingEffect pending) {
        var candidates = new UpdateCandidates(evaluation);
        candidates.consider(audiences, pending);
        return candidates.byAudience;
    }

    private void consider(Audiences audiences, PendingEffect pending) {
        var moves = evaluation.moves();
        var moved = new HashMap<Long, CurrentFinding>();
        for (FindingChange move : moves.subList(moves.opened(), moves.size()))
            move.earlier().ifPresent(before -> moved.put(before.id(), move.now()));
        Span every = evaluation.input().rule().memory().remindEvery();
        boolean remind = every != null && isReminderTime(audiences, every);
        var before = audiences.mayTell(moved.keySet(), new MayTell(pending.treatsAsKnown(), remind));
        findPresent(moves, before);
        for (int i = 0; i < moves.opened(); i++)
            if (moves.get(i) instanceof FindingChange.Opened opened) consider(opened, pending.treatsAsKnown());
        before.forEach(each -> consider(
                each, moved.getOrDefault(each.known().id(), each.known().now())));
    }

    private boolean isReminderTime(Audiences audiences, Span every) {
        var moment = evaluation.input().moment();
        // An hour more than needed, since a day may be shorter; what is due exactly is for core to say.
        return audiences.isAnyReportedBefore(
                every.negated().addTo(moment.local()).plusHours(2).toInstant());
    }

    /** The audience of each finding in the result; if the rule is not split, there is one for all. */
    private void findPresent(Moves moves, List<Before> before) {
        if (evaluation.input().rule().delivery().split() == null) return;
        Set<Digest> wanted = new HashSet<>();
        for (int i = 0; i < moves.opened(); i++) wanted.add(moves.key(i));
        before.forEach(each -> wanted.add(each.known().key()));
        evaluation
                .exceptions()
                .forEach(
                        wanted::contains,
                        evaluatedRow -> present.put(evaluatedRow.key(), evaluation.audienceOf(evaluatedRow)));
    }

    /** @param treatAsKnown where everything is taken as known; a million of them need not be looked at one by one */
    private void consider(FindingChange.Opened move, boolean treatAsKnown) {
        var key = move.evaluatedRow().key();
        var audience = of(present.getOrDefault(key, AudienceKey.WHOLE));
        if (treatAsKnown && move.now().state() == FindingState.OPEN) {
            audience.takesOpened = true;
            audience.openedMore++;
            return;
        }
        audience.standings.add(new Candidate<>(new ReportPlan.Subject(key, null), move.now(), null, Marks.NONE, true));
        if (move.now().state() == FindingState.OPEN) audience.openedMore++;
    }

    private void consider(Before before, CurrentFinding now) {
        var known = before.known();
        var subject = new ReportPlan.Subject(known.key(), known.id());
        boolean split = evaluation.input().rule().delivery().split() != null;
        var at = split ? present.getOrDefault(known.key(), before.at()) : AudienceKey.WHOLE;
        if (known.now().state() == FindingState.OPEN) of(before.at()).openedMore--;
        if (now.state() == FindingState.OPEN) of(at).openedMore++;
        of(at).standings.add(new Candidate<>(subject, now, before.reported().get(at), before.marks(), true));
        before.reported().forEach((audience, reported) -> {
            // It moved away from those who think it still theirs; those of another split are there no more.
            boolean isStillThere = audience.isWhole() != split;
            if (isStillThere && !audience.equals(at) && reported.state() != FindingState.CLEARED)
                of(audience).standings.add(new Candidate<>(subject, now, reported, before.marks(), false));
        });
    }

    private OfAudience of(AudienceKey audience) {
        return byAudience.computeIfAbsent(audience, _ -> new OfAudience());
    }

    /** Everything open in the result, by audience, in its order. */
    static Map<AudienceKey, List<Candidate<ReportPlan.Subject>>> open(Evaluation evaluation, Map<Long, Marks> marks) {
        var open = new LinkedHashMap<AudienceKey, List<Candidate<ReportPlan.Subject>>>();
        evaluation.exceptions().forEach(evaluatedRow -> {
            if (evaluation.pending().contains(evaluatedRow.key())) return;
            Long id = evaluation.idOf(evaluatedRow.key());
            var now = CurrentFinding.of(
                    FindingState.OPEN, Objects.requireNonNull(evaluatedRow.severity()), evaluatedRow.fingerprint());
            var said = id == null ? Marks.NONE : marks.getOrDefault(id, Marks.NONE);
            open.computeIfAbsent(evaluation.audienceOf(evaluatedRow), _ -> new ArrayList<>())
                    .add(new Candidate<>(new ReportPlan.Subject(evaluatedRow.key(), id), now, null, said, true));
        });
        return open;
    }
}
