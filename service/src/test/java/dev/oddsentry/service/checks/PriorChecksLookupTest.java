package dev.oddsentry.service.checks;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.service.evaluation.PriorChecks;
import dev.oddsentry.service.ids.RuleId;
import dev.oddsentry.service.memory.Scope;
import java.time.Instant;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** What a preview, an effect or Why? looks at begins where the next check would. */
class PriorChecksLookupTest {
    private static final Instant OF_RULE = Instant.parse("2026-11-24T04:40:00Z");
    private static final Instant OF_HOLM = Instant.parse("2026-11-20T04:40:00Z");

    private final CheckStore checks = mock();
    private final CopyStore copies = mock();
    private final RuleId rule = RuleId.random();
    private final PriorChecksLookup standings = new PriorChecksLookup(checks, copies);

    @BeforeEach
    void aRuleWithACopyThatFailedSince() {
        when(checks.ofRule(rule))
                .thenReturn(new PriorChecks(
                        true, 12, OF_RULE, PendingEffect.of(PendingEffect.EditEffect.OTHER_CONDITIONS)));
        when(copies.priorChecks(rule))
                .thenReturn(Map.of(
                        "Holm", new PriorChecks(false, 8, OF_HOLM, PendingEffect.of(PendingEffect.ReportChoice.OPEN))));
    }

    @Test
    void aRuleThatIsNotSavedBeginsWithNothing() {
        assertThat(standings.of(null)).isEqualTo(PriorChecks.NONE);
    }

    @Test
    void aRuleStandsWhereItsLastGoodCheckLeftIt() {
        assertThat(standings.of(new Scope(rule, null)).lastGoodSlot()).isEqualTo(OF_RULE);
    }

    @Test
    void aCopyStandsWhereItsOwnLastGoodCheckLeftItAndOwesWhatTheRuleOwesToo() {
        var holm = standings.of(new Scope(rule, "Holm"));
        assertThat(holm.lastGoodSlot()).isEqualTo(OF_HOLM);
        assertThat(holm.goodSlots()).isEqualTo(8);
        assertThat(holm.pending())
                .isEqualTo(
                        new PendingEffect(PendingEffect.EditEffect.OTHER_CONDITIONS, PendingEffect.ReportChoice.OPEN));
    }

    @Test
    void aCopyThatWasNeverCheckedHasNoLastCheck() {
        var vik = standings.of(new Scope(rule, "Vik"));
        assertThat(vik.lastGoodSlot()).isNull();
        assertThat(vik.goodSlots()).isZero();
        assertThat(vik.newcomer()).isTrue();
    }
}
