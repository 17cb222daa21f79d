package dev.oddsentry.core.memory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** One finding through a row of checks ten minutes apart. */
class HoldTest {
    private static final Digest KEY = new Digest(0, 1);
    private static final Instant START = Instant.parse("2026-11-24T04:40:00Z");

    /**
     * Of each check: X seen, . not seen, x seen on demand, ? not evaluated; of its state after it: P pending, O open, C cleared, - never
     * heard of.
     */
    @ParameterizedTest
    @CsvSource({
        "XXXX,      1 check,    1 check,    OOOO",
        "XXXX,      3 checks,   1 check,    PPOO",
        "XxxXX,     3 checks,   1 check,    PPPPO",
        "xX,        2 checks,   1 check,    PP",
        "XX.XX,     3 checks,   1 check,    PPCPP",
        "XX.XX,     3 checks,   2 checks,   PPPOO",
        "X..XX,     1 check,    2 checks,   OOCOO",
        "X.X..,     1 check,    2 checks,   OOOOC",
        "XXXX,      20 minutes, 1 check,    PPOO",
        "X...,      1 check,    20 minutes, OOOC",
        "X??.,      1 check,    1 check,    OOOC",
        "X?X,       2 checks,   1 check,    PPO",
        "?X,        1 check,    1 check,    -O",
    })
    void opensOnceHeldLongEnoughAndClearsOnceMissedLongEnough(
            String checks, String hold, String misses, String states) {
        var rules = new Comparison.Rules(Absence.CLEARS, MinimumDuration.parse(hold), MinimumDuration.parse(misses), 0);
        StoredFinding known = null;
        long scheduled = 0;
        var seen = new StringBuilder();
        for (int i = 0; i < checks.length(); i++) {
            boolean counts = checks.charAt(i) != 'x';
            var tick = new MinimumDuration.Tick(scheduled, counts, START.plus(Duration.ofMinutes(10L * i)));
            known = after(known, checks.charAt(i), rules, tick);
            if (counts) scheduled++;
            seen.append(known == null ? '-' : known.now().state().name().charAt(0));
        }
        assertThat(seen).hasToString(states);
    }

    private static @Nullable StoredFinding after(
            @Nullable StoredFinding known, char check, Comparison.Rules rules, MinimumDuration.Tick tick) {
        var comparison = new Comparison(KnownTable.of(known == null ? List.of() : List.of(known)), rules, tick);
        boolean exception = Character.toLowerCase(check) == 'x';
        if (check != '.') {
            comparison.see(new EvaluatedRow(
                    KEY, List.of("Terna"), exception ? Severity.WARNING : null, check != '?', KEY, List.of("Terna")));
        }
        var moves = comparison.finish();
        return moves.isEmpty()
                ? known
                : new StoredFinding(1, KEY, moves.getFirst().now());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"1 check", "3 checks", "40 minutes", "1 minute", "90 minutes", "2 hours", "1 day", "7 days"})
    void patienceIsWrittenAsItWasRead(String text) {
        assertThat(MinimumDuration.parse(text).text()).isEqualTo(text);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "0 checks", "three checks", "3 weeks", "-1 hours", "3"})
    void patienceThatIsNoneIsRefusedWithWords(String text) {
        assertThatThrownBy(() -> MinimumDuration.parse(text))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageNotContaining("Exception");
    }
}
