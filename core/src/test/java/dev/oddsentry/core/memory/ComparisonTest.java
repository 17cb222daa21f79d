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

    private static Sighting seen(long key, @Nullable Severity severity) {
        return new Sighting(new Digest(0, key), List.of(key), severity, true, PLAIN, List.of(key));
    }

    private static Comparison comparison(List<Known> known, Absence absence) {
        var rules = new Comparison.Rules(absence, Patience.NONE, Patience.NONE, 0);
        return new Comparison(KnownTable.of(known), rules, new Patience.Tick(0, true, Instant.EPOCH));
    }

    private static Known known(long key, State state, Severity severity) {
        return new Known(key, new Digest(0, key), Now.of(state, severity, PLAIN));
    }

    /** The table of what is so now, a line for each of its cells that needs no hold. */
    @ParameterizedTest
    @CsvSource({
        // now, row in the result, absence, becomes
        "OPEN,         WARNING,  PUT_RIGHT, OPEN",
        "OPEN,         CRITICAL, PUT_RIGHT, OPEN",
        "OPEN,         none,     PASSED_BY, CLEARED",
        "OPEN,         absent,   PUT_RIGHT, CLEARED",
        "OPEN,         absent,   PASSED_BY, OUT_OF_SIGHT",
        "OPEN,         absent,   STAYS,     OPEN",
        "OUT_OF_SIGHT, WARNING,  PASSED_BY, OPEN",
        "OUT_OF_SIGHT, none,     PASSED_BY, CLEARED",
        "OUT_OF_SIGHT, absent,   PUT_RIGHT, OUT_OF_SIGHT",
        "CLEARED,      WARNING,  PUT_RIGHT, OPEN",
        "CLEARED,      none,     PUT_RIGHT, CLEARED",
        "CLEARED,      absent,   PASSED_BY, CLEARED",
    })
    void movesAsTheTableSays(State now, String row, Absence absence, State becomes) {
        var comparison = comparison(List.of(known(1, now, Severity.WARNING)), absence);
        if (!row.equals("absent")) comparison.see(seen(1, row.equals("none") ? null : Severity.valueOf(row)));
        var moves = comparison.finish();
        State after = moves.isEmpty() ? now : moves.getFirst().now().state();
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
        "OPEN,         NOTICE,   OPEN,         WARNING,  EASED",
        "OPEN,         WARNING,  CLEARED,      WARNING,  RETURNED",
        "OPEN,         CRITICAL, CLEARED,      WARNING,  RETURNED WORSENED",
        "OPEN,         WARNING,  OUT_OF_SIGHT, WARNING,  ''",
        "CLEARED,      WARNING,  OPEN,         WARNING,  CLEARED",
        "CLEARED,      WARNING,  OUT_OF_SIGHT, WARNING,  CLEARED",
        "CLEARED,      WARNING,  CLEARED,      WARNING,  ''",
        "CLEARED,      WARNING,  never,        -,        ''",
        "OUT_OF_SIGHT, WARNING,  never,        -,        NEW",
        "OUT_OF_SIGHT, WARNING,  OPEN,         WARNING,  ''",
        "OUT_OF_SIGHT, WARNING,  OPEN,         NOTICE,   WORSENED",
        "OUT_OF_SIGHT, NOTICE,   OPEN,         WARNING,  ''",
        "OUT_OF_SIGHT, NOTICE,   CLEARED,      NOTICE,   RETURNED",
        "PENDING,      WARNING,  never,        -,        ''",
        "PENDING,      CRITICAL, OPEN,         NOTICE,   ''",
    })
    void newsIsTheDifferenceBetweenNowAndReported(
            State state, Severity severity, String reportedState, String reportedSeverity, String news) {
        var now = Now.of(state, severity, PLAIN);
        var reported = reportedState.equals("never")
                ? null
                : new Reported(State.valueOf(reportedState), Severity.valueOf(reportedSeverity), PLAIN, null);
        assertThat(News.between(now, reported, true, true))
                .extracting(Enum::name)
                .containsExactlyInAnyOrder(news.isEmpty() ? new String[0] : news.split(" "));
    }

    @Test
    void twoRowsOfOneIdentityAreRefusedEvenWhereNeitherIsAnException() {
        var comparison = comparison(List.of(), Absence.PUT_RIGHT);
        comparison.see(seen(7, null));
        assertThatThrownBy(() -> comparison.see(seen(7, null)))
                .isInstanceOf(DuplicateIdentityException.class)
                .hasMessageContaining("[7]");
    }

    @Test
    void whatBelongsToAnotherAudienceNowIsSaidToHaveMovedAwayOnce() {
        var now = Now.of(State.OPEN, Severity.WARNING, PLAIN);
        var told = Reported.told(now, true, Instant.EPOCH);
        assertThat(News.between(now, told, false, true)).containsExactly(NewsKind.MOVED_AWAY);
        assertThat(News.between(now, Reported.told(now, false, Instant.EPOCH), false, true))
                .isEmpty();
        assertThat(News.between(now, null, false, true)).isEmpty();
    }
}
