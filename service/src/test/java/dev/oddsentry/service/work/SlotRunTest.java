package dev.oddsentry.service.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyBoolean;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import com.github.kagkarlsson.scheduler.task.CompletionHandler;
import com.github.kagkarlsson.scheduler.task.ExecutionOperations;
import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.service.checks.CheckRunner;
import dev.oddsentry.service.checks.SourceTurns;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.rules.RuleStates;
import dev.oddsentry.service.rules.RuleStates.NextSlot;
import dev.oddsentry.service.schedules.Schedules;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.Optional;
import java.util.function.Supplier;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;

/** Whether a slot is due is for the database's clock to say, whatever this node's has jumped to. */
class SlotRunTest {
    private static final Instant SLOT = Instant.parse("2026-05-04T10:00:00Z");
    private static final Duration HOUR = Duration.ofHours(1);

    private final DefinitionStore definitions = mock();
    private final Schedules schedules = mock();
    private final RuleStates rules = mock();
    private final CheckRunner checks = mock();
    private final SourceTurns turns = mock();
    private final RuleId rule = RuleId.random();

    @BeforeEach
    void aRuleOfEveryHour() {
        var definition =
                (RuleDefinition) Document.read("{kind: rule, name: late, owner: Traffic reporting, query: sailings,"
                                + " memory: {key: [sailing]}, schedule: {start: 2026-01-01T00:00, recur: FREQ=HOURLY}}")
                        .definition();
        var query = (QueryDefinition) Document.read("{kind: query, name: sailings, source: ferry, sql: select 1}")
                .definition();
        when(definitions.rule(rule)).thenReturn(Optional.of(new Current<>(rule.value(), 1, definition)));
        when(definitions.query(anyString())).thenReturn(Optional.of(new Current<>(rule.value(), 1, query)));
        when(schedules.of(definition)).thenReturn(definition.schedule().in(definition.zone(), null));
        when(schedules.moment(definition, SLOT)).thenReturn(new Moment(SLOT, definition.zone()));
        when(turns.delay(rule)).thenReturn(Duration.ZERO);
        when(turns.take(any(), any(), anyBoolean()))
                .thenAnswer(call -> call.<Supplier<Boolean>>getArgument(1).get());
        when(checks.runScheduled(any(), any(), anyInt())).thenReturn(true);
    }

    /** Wakes with these clocks. @return when it wants to be woken again */
    private Instant wake(Instant database, Instant node) {
        when(rules.nextSlot(rule))
                .thenReturn(
                        Optional.of(new NextSlot(SLOT, database)),
                        Optional.of(new NextSlot(SLOT.plus(HOUR), database)));
        var run = new SlotRun(definitions, schedules, rules, checks, turns, Clock.fixed(node, ZoneOffset.UTC));
        CompletionHandler<Void> handler = run.wake(rule);
        ExecutionOperations<Void> operations = mock();
        handler.complete(null, operations);
        var when = ArgumentCaptor.forClass(Instant.class);
        verify(operations).reschedule(any(), when.capture());
        return when.getValue();
    }

    @Test
    void aSlotThatIsDueIsRunAndTheNextIsWaitedFor() {
        assertThat(wake(SLOT, SLOT)).isEqualTo(SLOT.plus(HOUR));
        verify(checks).runScheduled(rule, SLOT, 1);
        verify(rules).moveOn(rule, SLOT, SLOT.plus(HOUR));
    }

    @Test
    void aNodeWhoseClockIsAheadRunsNothingEarly() {
        var ahead = SLOT.plus(Duration.ofMinutes(30));
        assertThat(wake(SLOT.minusSeconds(60), ahead)).isEqualTo(ahead.plusSeconds(5));
        verify(checks, never()).runScheduled(any(), any(), anyInt());
    }

    @Test
    void aClockThatIsAheadByMillisecondsCostsNoMoreThanThose() {
        assertThat(wake(SLOT.minusMillis(7), SLOT)).isEqualTo(SLOT.plusMillis(7));
    }

    @Test
    void aNodeWhoseClockIsBehindDoesNotWaitForItself() {
        assertThat(wake(SLOT, SLOT.minus(HOUR))).isEqualTo(SLOT.plus(HOUR));
        verify(checks).runScheduled(rule, SLOT, 1);
    }

    @Test
    void missedSlotsAreCountedByTheDatabasesClockToo() {
        wake(SLOT.plus(HOUR.multipliedBy(2)), SLOT.plus(HOUR.multipliedBy(900)));
        verify(checks).runScheduled(rule, SLOT.plus(HOUR.multipliedBy(2)), 3);
    }

    @Test
    void aSourceThatCannotBeReachedIsLeftAloneForAWhile() {
        when(turns.rest(rule)).thenReturn(Duration.ofSeconds(8));
        assertThat(wake(SLOT, SLOT)).isEqualTo(SLOT.plusSeconds(8));
        verify(checks, never()).runScheduled(any(), any(), anyInt());
    }

    @Test
    void whereItsSourceAsksForItTheCheckBeginsLater() {
        when(turns.delay(rule)).thenReturn(Duration.ofSeconds(20));
        assertThat(wake(SLOT.plusSeconds(5), SLOT)).isEqualTo(SLOT.plusSeconds(15));
        verify(checks, never()).runScheduled(any(), any(), anyInt());
    }
}
