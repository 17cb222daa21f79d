package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyLong;
import static org.mockito.Mockito.RETURNS_DEEP_STUBS;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.verifyNoInteractions;
import static org.mockito.Mockito.when;

import dev.oddsentry.core.definition.MemoryDefinition.SafetyLimits;
import dev.oddsentry.core.definition.TriggersDefinition;
import dev.oddsentry.core.definition.TriggersDefinition.WhenEmpty;
import dev.oddsentry.core.memory.Moves;
import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.service.checks.UnitRunner.UnitCommit;
import dev.oddsentry.service.checks.UnitRunner.UnitOutcome;
import dev.oddsentry.service.evaluation.Attempt;
import dev.oddsentry.service.evaluation.Evaluation;
import dev.oddsentry.service.evaluation.Evaluator;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.ids.CheckId;
import dev.oddsentry.service.messages.MessagePlanner;
import dev.oddsentry.service.reporting.ReportPlan;
import dev.oddsentry.service.reporting.ReportPlanner;
import java.time.Duration;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

class UnitRunnerTest {
    private final RunningChecks running = mock();
    private final Evaluator evaluator = mock();
    private final ReportPlanner reports = mock();
    private final MessagePlanner messages = mock();
    private final Evaluation evaluation = mock(RETURNS_DEEP_STUBS);
    private final Attempt attempt = mock(RETURNS_DEEP_STUBS);
    private final SafetyLimits limits = mock();
    private final UnitCommit commit = mock();
    private final UnitRunner units = new UnitRunner(running, evaluator, reports, messages);

    @BeforeEach
    void aUnitThatFindsOneRow() {
        var rule = attempt.rule().definition();
        when(attempt.checkId()).thenReturn(CheckId.random());
        when(attempt.timeLimit()).thenReturn(Duration.ofMinutes(1));
        when(attempt.pending()).thenReturn(PendingEffect.NONE);
        when(rule.memory().safetyLimits()).thenReturn(limits);
        when(limits.exceededBy(anyLong(), anyLong(), anyLong())).thenReturn(Optional.empty());
        whenEmpty(WhenEmpty.QUIET);
        when(running.watch(any(), anyInt(), any(), any()))
                .thenAnswer(
                        call -> call.<Function<Object, Object>>getArgument(3).apply(call.getArgument(2)));
        when(evaluator.evaluate(any(), any())).thenReturn(evaluation);
        when(evaluation.reading().rows()).thenReturn(1L);
        when(evaluation.reading().took()).thenReturn(Duration.ZERO);
        when(evaluation.moves()).thenReturn(mock(Moves.class));
        when(evaluation.evaluator().unevaluated()).thenReturn(List.of());
        when(messages.withMessages(any(), any(), any())).thenReturn(ReportPlan.NOTHING);
    }

    private void whenEmpty(WhenEmpty fails) {
        var rule = attempt.rule().definition();
        when(rule.triggers()).thenReturn(new TriggersDefinition(List.of(), List.of(), null, fails));
    }

    @Test
    void committedUnitIsDone() {
        when(commit.commit(evaluation, ReportPlan.NOTHING)).thenReturn(true);
        assertThat(units.run(attempt, commit)).isEqualTo(UnitOutcome.Ended.DONE);
        verify(evaluation).close();
    }

    @Test
    void unitWhoseCommitIsRefusedIsOutdated() {
        assertThat(units.run(attempt, commit)).isEqualTo(UnitOutcome.Ended.OUTDATED);
        verify(evaluation).close();
    }

    @Test
    void unitBeyondASafetyLimitIsNeitherPlannedNorCommitted() {
        when(limits.exceededBy(anyLong(), anyLong(), anyLong()))
                .thenReturn(Optional.of("31 of 40 open findings would clear at once, more than 50 %"));
        assertThat(units.run(attempt, commit)).isInstanceOfSatisfying(UnitOutcome.BeyondLimit.class, beyond -> {
            assertThat(beyond.reason()).startsWith("31 of 40");
            assertThat(beyond.summary().rows()).isEqualTo(1);
        });
        verifyNoInteractions(reports, messages, commit);
        verify(evaluation).close();
    }

    @Test
    void approvedUnitHasNoSafetyLimit() {
        when(attempt.released()).thenReturn(true);
        when(commit.commit(evaluation, ReportPlan.NOTHING)).thenReturn(true);
        assertThat(units.run(attempt, commit)).isEqualTo(UnitOutcome.Ended.DONE);
        verifyNoInteractions(limits);
    }

    @Test
    void emptyResultFailsARuleThatSaysSo() {
        whenEmpty(WhenEmpty.FAIL);
        when(evaluation.reading().rows()).thenReturn(0L);
        assertThatThrownBy(() -> units.run(attempt, commit))
                .isInstanceOf(CheckFailureException.class)
                .hasMessageContaining("when_empty: fail");
        verifyNoInteractions(commit);
        verify(evaluation).close();
    }
}
