package dev.oddsentry.service.reporting;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.CurrentFinding;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.memory.FindingChange;
import dev.oddsentry.core.memory.FindingState;
import dev.oddsentry.core.memory.LastReport;
import dev.oddsentry.core.memory.Marks;
import dev.oddsentry.core.memory.Moves;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.StoredFinding;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.EvaluationInput;
import dev.oddsentry.service.evaluation.SeenRows;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore.Before;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.RepeatedTest;
import org.junit.jupiter.api.RepetitionInfo;
import org.junit.jupiter.api.Test;

/** How findings are given to audiences: random findings that stay, move and go, held against looking at each by itself. */
class UpdateCandidatesTest {
    private static final Instant SLOT = Instant.parse("2026-05-04T06:00:00Z");
    private static final String[] TERMINALS = {"Holm", "Vik", ""};

    /** A finding before the check and after it. */
    private record Case(
            long id,
            @Nullable FindingState was,
            @Nullable FindingState is,
            @Nullable AudienceKey wasAt,
            @Nullable AudienceKey isAt,
            Map<AudienceKey, LastReport> reported) {
        Digest key() {
            return new Digest(3, id);
        }

        /** Whose it is: by the result where it stands in it, else as it was. */
        AudienceKey at() {
            return isAt != null ? isAt : Objects.requireNonNull(wasAt);
        }
    }

    private static CurrentFinding now(FindingState state) {
        return CurrentFinding.of(state, Severity.WARNING, new Digest(1, 1));
    }

    private static AudienceKey anyOf(Random random) {
        return new AudienceKey(TERMINALS[random.nextInt(TERMINALS.length)]);
    }

    private static List<Case> cases(Random random) {
        var cases = new ArrayList<Case>();
        for (long id = 1; id <= 30; id++) {
            boolean isNew = random.nextInt(4) == 0;
            boolean inResult = isNew || random.nextBoolean();
            var was = isNew ? null : FindingState.values()[random.nextInt(FindingState.values().length)];
            var is = inResult ? FindingState.OPEN : random.nextBoolean() ? FindingState.CLEARED : was;
            var reported = new HashMap<AudienceKey, LastReport>();
            for (String terminal : TERMINALS) {
                if (!isNew && random.nextBoolean())
                    reported.put(
                            new AudienceKey(terminal),
                            new LastReport(
                                    random.nextBoolean() ? FindingState.OPEN : FindingState.CLEARED,
                                    Severity.WARNING,
                                    new Digest(1, 1),
                                    SLOT.minusSeconds(9)));
            }
            cases.add(new Case(id, was, is, isNew ? null : anyOf(random), inResult ? anyOf(random) : null, reported));
        }
        return cases;
    }

    private static Map<AudienceKey, UpdateCandidates.OfAudience> candidates(List<Case> cases, boolean split) {
        var rule = (RuleDefinition) Document.read("{kind: rule, name: gear, owner: Traffic reporting, query: gear,"
                        + " memory: {key: [serial]}" + (split ? ", delivery: {split_by: terminal}" : "") + "}")
                .definition();
        EvaluationInput input = mock();
        when(input.rule()).thenReturn(rule);
        when(input.moment()).thenReturn(new Moment(SLOT, ZoneOffset.UTC));
        Evaluation evaluation = mock();
        when(evaluation.input()).thenReturn(input);
        var moves = new ArrayList<FindingChange>();
        var before = new ArrayList<Before>();
        try (var exceptions = new SeenRows()) {
            for (var each : cases) {
                var evaluatedRow = new EvaluatedRow(
                        each.key(), List.of(each.id()), Severity.WARNING, true, new Digest(1, 1), List.of(each.id()));
                if (each.isAt() != null) exceptions.add(evaluatedRow);
                if (each.was() == null) {
                    moves.add(new FindingChange.Opened(evaluatedRow, now(FindingState.OPEN)));
                    continue;
                }
                var known = new StoredFinding(each.id(), each.key(), now(each.was()));
                before.add(new Before(known, split ? each.wasAt() : AudienceKey.WHOLE, each.reported(), Marks.NONE));
                if (each.isAt() != null)
                    moves.add(new FindingChange.Altered(known, evaluatedRow, now(FindingState.OPEN), false));
                else if (each.is() == FindingState.CLEARED)
                    moves.add(new FindingChange.Cleared(known, now(FindingState.CLEARED)));
            }
            when(evaluation.moves()).thenReturn(Moves.of(moves));
            when(evaluation.exceptions()).thenReturn(exceptions);
            when(evaluation.audienceOf(any(EvaluatedRow.class))).thenAnswer(call -> {
                long id = call.<EvaluatedRow>getArgument(0).key().low();
                return cases.get((int) id - 1).isAt();
            });
            Audiences audiences = mock();
            when(audiences.mayTell(any(), any())).thenReturn(before);
            return UpdateCandidates.of(evaluation, audiences, PendingEffect.NONE);
        }
    }

    private static TreeSet<String> described(UpdateCandidates.OfAudience of) {
        var all = new TreeSet<String>();
        of.list()
                .forEach(each -> all.add(each.subject().key().low() + " "
                        + each.now().state() + " " + each.here() + " "
                        + (each.reported() == null ? "never" : each.reported().state())));
        return all;
    }

    @RepeatedTest(200)
    void eachAudienceIsGivenItsFindingsAndThoseThatMovedAway(RepetitionInfo repetition) {
        var cases = cases(new Random(repetition.getCurrentRepetition()));
        var found = candidates(cases, true);
        for (String terminal : TERMINALS) {
            var audience = new AudienceKey(terminal);
            var expected = new TreeSet<String>();
            int openBefore = 0;
            int openAfter = 0;
            for (var each : cases) {
                var told = each.reported().get(audience);
                boolean here = each.at().equals(audience);
                if (here || (told != null && told.state() != FindingState.CLEARED))
                    expected.add(
                            each.id() + " " + each.is() + " " + here + " " + (told == null ? "never" : told.state()));
                if (each.was() == FindingState.OPEN && audience.equals(each.wasAt())) openBefore++;
                if (each.is() == FindingState.OPEN && here) openAfter++;
            }
            var of = found.get(audience);
            assertThat(of == null ? new TreeSet<String>() : described(of))
                    .as(terminal)
                    .isEqualTo(expected);
            assertThat(of == null ? 0 : of.openedMore()).as(terminal).isEqualTo(openAfter - openBefore);
        }
    }

    @Test
    void removingTheSplitSendsAllFindingsToEveryone() {
        var told = Map.of(
                AudienceKey.WHOLE,
                new LastReport(FindingState.OPEN, Severity.WARNING, new Digest(1, 1), SLOT),
                new AudienceKey("Holm"),
                new LastReport(FindingState.OPEN, Severity.WARNING, new Digest(1, 1), SLOT));
        var found = candidates(
                List.of(
                        new Case(
                                1,
                                FindingState.OPEN,
                                FindingState.OPEN,
                                new AudienceKey("Holm"),
                                new AudienceKey("Holm"),
                                told),
                        new Case(2, null, FindingState.OPEN, null, new AudienceKey("Vik"), Map.of())),
                false);
        assertThat(found).containsOnlyKeys(AudienceKey.WHOLE);
        assertThat(described(found.get(AudienceKey.WHOLE)))
                .containsExactlyInAnyOrder("1 OPEN true OPEN", "2 OPEN true never");
    }
}
