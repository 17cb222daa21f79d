package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyString;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.oddsentry.core.definition.Document;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.sources.Source;
import dev.oddsentry.service.sources.Sources;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

/** No source takes more of the workers than its share. */
class SourceTurnsTest {
    private final DefinitionStore definitions = mock();
    private final Sources sources = mock();
    private final Settings settings = mock();
    private final RuleId rule = RuleId.random();

    private SourceTurns turns(int workers, int connections, Duration spread) {
        var definition =
                (RuleDefinition) Document.read("{kind: rule, name: late, owner: Traffic reporting, query: sailings,"
                                + " memory: {key: [sailing]}}")
                        .definition();
        var query = (QueryDefinition) Document.read("{kind: query, name: sailings, source: ferry, sql: select 1}")
                .definition();
        when(definitions.rule(any(RuleId.class))).thenReturn(Optional.of(new Current<>(rule.value(), 1, definition)));
        when(definitions.query(anyString())).thenReturn(Optional.of(new Current<>(rule.value(), 1, query)));
        when(sources.find("ferry"))
                .thenReturn(Optional.of(new Source(
                        rule.value(),
                        "ferry",
                        "jdbc:postgresql:ferry",
                        "reader",
                        1,
                        Duration.ofSeconds(1),
                        connections,
                        null,
                        spread,
                        List.of(),
                        Instant.EPOCH)));
        when(settings.work())
                .thenReturn(new Settings.Work(
                        workers, workers, Duration.ofMillis(1), Duration.ofSeconds(1), Duration.ofSeconds(1)));
        return new SourceTurns(definitions, sources, mock(), settings);
    }

    /** How many can have a turn inside one another. */
    private int most(SourceTurns turns) {
        return turns.take(rule, () -> 1 + most(turns), 0);
    }

    @Test
    void atMostItsConnectionsForChecksAndThreeQuartersOfTheWorkersRunAtOnce() {
        assertThat(most(turns(16, 4, Duration.ZERO))).isEqualTo(3);
        assertThat(most(turns(16, 100, Duration.ZERO))).isEqualTo(12);
        assertThat(most(turns(1, 100, Duration.ZERO))).isEqualTo(1);
    }

    @Test
    void aTurnIsGivenBackEvenByWorkThatFails() {
        var turns = turns(16, 1, Duration.ZERO);
        for (int i = 0; i < 3; i++) {
            try {
                turns.take(
                        rule,
                        () -> {
                            throw new IllegalStateException("the source is gone");
                        },
                        0);
            } catch (IllegalStateException expected) {
                assertThat(expected).hasMessage("the source is gone");
            }
        }
        assertThat(most(turns)).isEqualTo(1);
    }

    @Test
    void eachRuleIsAlwaysAsLateAsItIsAndNeverLaterThanTheSpread() {
        var turns = turns(16, 4, Duration.ofSeconds(30));
        for (int i = 0; i < 200; i++) {
            RuleId some = RuleId.random();
            assertThat(turns.delay(some)).isEqualTo(turns.delay(some)).isBetween(Duration.ZERO, Duration.ofSeconds(30));
        }
        assertThat(turns(16, 4, Duration.ZERO).delay(rule)).isZero();
    }

    @Test
    void aRuleWithoutASourceHasItsTurnSinceItsCheckSaysWhatIsWrong() {
        var turns = turns(16, 1, Duration.ZERO);
        when(sources.find("ferry")).thenReturn(Optional.empty());
        assertThat(turns.<String>take(rule, () -> "ran", "waits")).isEqualTo("ran");
    }
}
