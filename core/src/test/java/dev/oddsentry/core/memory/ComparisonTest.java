package dev.oddsentry.core.memory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ComparisonTest {
    private static final Digest PLAIN = new Digest(1, 1);

    private static EvaluatedRow seen(long key, @Nullable Severity severity) {
        return new EvaluatedRow(new Digest(0, key), List.of(key), severity, true, PLAIN, List.of(key));
    }

    private static Comparison comparison(List<StoredFinding> known, Absence absence) {
        var rules = new Comparison.Rules(absence, MinimumDuration.NONE, MinimumDuration.NONE, 0);
        return new Comparison(KnownTable.of(known), rules, new MinimumDuration.Tick(0, true, Instant.EPOCH));
    }

    private static StoredFinding known(long key, FindingState state, Severity severity) {
        return new StoredFinding(key, new Digest(0, key), CurrentFinding.of(state, severity, PLAIN));
    }

    /** The table of the current state, a line for each of its cells that needs no hold. */
    @ParameterizedTest
    @CsvSource({
        // now, row in the result, absence, becomes
        "OPEN,         WARNING,  CLEARS, OPEN",
        "OPEN,         CRITICAL, CLEARS, OPEN",
        "OPEN,         none,     AGES_OUT, CLEARED",
        "OPEN,         absent,   CLEARS, CLEARED",
        "OPEN,         absent,   AGES_OUT, AGED_OUT",
        "OPEN,         absent,   STAYS_OPEN,     OPEN",
        "AGED_OUT, WARNING,  AGES_OUT, OPEN",
        "AGED_OUT, none,     AGES_OUT, CLEARED",
        "AGED_OUT, absent,   CLEARS, AGED_OUT",
        "CLEARED,      WARNING,  CLEARS, OPEN",
        "CLEARED,      none,     CLEARS, CLEARED",
        "CLEARED,      absent,   AGES_OUT, CLEARED",
    })
    void movesAsTheTableSays(FindingState now, String row, Absence absence, FindingState becomes) {
        var comparison = comparison(List.of(known(1, now, Severity.WARNING)), absence);
        if (!row.equals("absent")) comparison.see(seen(1, row.equals("none") ? null : Severity.valueOf(row)));
        var moves = comparison.finish();
        FindingState after = moves.isEmpty() ? now : moves.getFirst().now().state();
        assertThat(after).isEqualTo(becomes);
        if (becomes == now && !row.equals("CRITICAL"))
            assertThat(moves).as("nothing is written for what did not move").isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        // now state, severity, reported state, severity, news
        "OPEN,         WARNING,  never,        -,        NEW",
        "OPEN,         WARNING,  OPEN,         WARNING,  ''",
        "OPEN,         CRITICAL, OPEN,         WARNING,  WORSENED",
        "OPEN,         NOTICE,   OPEN,         WARNING,  IMPROVED",
        "OPEN,         WARNING,  CLEARED,      WARNING,  RETURNED",
        "OPEN,         CRITICAL, CLEARED,      WARNING,  RETURNED WORSENED",
        "OPEN,         WARNING,  AGED_OUT, WARNING,  ''",
        "CLEARED,      WARNING,  OPEN,         WARNING,  CLEARED",
        "CLEARED,      WARNING,  AGED_OUT, WARNING,  CLEARED",
        "CLEARED,      WARNING,  CLEARED,      WARNING,  ''",
        "CLEARED,      WARNING,  never,        -,        ''",
        "AGED_OUT, WARNING,  never,        -,        NEW",
        "AGED_OUT, WARNING,  OPEN,         WARNING,  ''",
        "AGED_OUT, WARNING,  OPEN,         NOTICE,   WORSENED",
        "AGED_OUT, NOTICE,   OPEN,         WARNING,  ''",
        "AGED_OUT, NOTICE,   CLEARED,      NOTICE,   RETURNED",
        "PENDING,      WARNING,  never,        -,        ''",
        "PENDING,      CRITICAL, OPEN,         NOTICE,   ''",
    })
    void newsIsTheDifferenceBetweenNowAndReported(
            FindingState state, Severity severity, String reportedState, String reportedSeverity, String news) {
        var now = CurrentFinding.of(state, severity, PLAIN);
        var reported = reportedState.equals("never")
                ? null
                : new LastReport(FindingState.valueOf(reportedState), Severity.valueOf(reportedSeverity), PLAIN, null);
        assertThat(UpdateDetector.between(now, reported, true, true))
                .extracting(Enum::name)
                .containsExactlyInAnyOrder(news.isEmpty() ? new String[0] : news.split(" "));
    }

    @Test
    void twoRowsOfOneIdentityAreRefusedEvenWhereNeitherIsAnException() {
        var comparison = comparison(List.of(), Absence.CLEARS);
        comparison.see(seen(7, null));
        assertThatThrownBy(() -> comparison.see(seen(7, null)))
                .isInstanceOf(DuplicateIdentityException.class)
                .hasMessageContaining("[7]");
    }

    @Test
    void whatBelongsToAnotherAudienceNowIsSaidToHaveMovedAwayOnce() {
        var now = CurrentFinding.of(FindingState.OPEN, Severity.WARNING, PLAIN);
        var told = LastReport.inMessage(now, true, Instant.EPOCH);
        assertThat(UpdateDetector.between(now, told, false, true)).containsExactly(UpdateKind.MOVED);
        assertThat(UpdateDetector.between(now, LastReport.inMessage(now, false, Instant.EPOCH), false, true))
                .isEmpty();
        assertThat(UpdateDetector.between(now, null, false, true)).isEmpty();
    }
}
