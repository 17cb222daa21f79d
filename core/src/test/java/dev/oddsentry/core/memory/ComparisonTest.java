package dev.oddsentry.core.memory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.Seeded;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
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
        var rules = new Comparison.Rules(absence, Patience.NONE, Patience.NONE);
        return new Comparison(known, rules, new Patience.Tick(0, true, Instant.EPOCH));
    }

    private static Known known(long key, State state, Severity severity) {
        return new Known(key, new Digest(0, key), Now.of(state, severity, PLAIN), null);
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
        "OPEN,         NOTICE,   OPEN,         WARNING,  ''",
        "OPEN,         WARNING,  CLEARED,      WARNING,  RETURNED",
        "OPEN,         CRITICAL, CLEARED,      WARNING,  RETURNED WORSENED",
        "OPEN,         WARNING,  OUT_OF_SIGHT, WARNING,  ''",
        "CLEARED,      WARNING,  OPEN,         WARNING,  CLEARED",
        "CLEARED,      WARNING,  OUT_OF_SIGHT, WARNING,  CLEARED",
        "CLEARED,      WARNING,  CLEARED,      WARNING,  ''",
        "CLEARED,      WARNING,  never,        -,        ''",
        "OUT_OF_SIGHT, WARNING,  never,        -,        NEW",
        "OUT_OF_SIGHT, WARNING,  OPEN,         WARNING,  ''",
    })
    void newsIsTheDifferenceBetweenNowAndReported(
            State state, Severity severity, String reportedState, String reportedSeverity, String news) {
        var now = Now.of(state, severity, PLAIN);
        var reported = reportedState.equals("never")
                ? null
                : new Reported(State.valueOf(reportedState), Severity.valueOf(reportedSeverity), PLAIN);
        assertThat(News.between(now, reported))
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
    void ofSeveralKindsOneThatIsReportedBringsAllAndNoneLetsItPass() {
        var worse = new Telling.Standing<>(
                "worse and back",
                Now.of(State.OPEN, Severity.CRITICAL, PLAIN),
                new Reported(State.CLEARED, Severity.NOTICE, PLAIN));
        var cleared = new Telling.Standing<>(
                "cleared",
                Now.of(State.CLEARED, Severity.NOTICE, PLAIN),
                new Reported(State.OPEN, Severity.NOTICE, PLAIN));
        var outcome = new Telling(Set.of(NewsKind.NEW, NewsKind.WORSENED)).choose(List.of(worse, cleared).stream());
        assertThat(outcome.told()).singleElement().satisfies(told -> {
            assertThat(told.subject()).isEqualTo("worse and back");
            assertThat(told.kinds()).containsExactlyInAnyOrder(NewsKind.RETURNED, NewsKind.WORSENED);
        });
        assertThat(outcome.letPass()).extracting(Telling.Standing::subject).containsExactly("cleared");
    }

    /** Random histories: what was told once is never news again while nothing moves, and nothing open stays untold. */
    @Test
    void settledMemoryHasNothingToReport() {
        Seeded.cases(300, random -> {
            var memory = new Memory(random);
            for (int check = 0; check < 12; check++) {
                List<Sighting> result = result(random);
                memory.check(result);
                assertThat(memory.check(result)).as("the same result again").isEmpty();
                assertThat(memory.untoldOpen()).isEmpty();
            }
        });
    }

    private static List<Sighting> result(Random random) {
        var rows = new ArrayList<Sighting>();
        for (long key = 0; key < 12; key++) {
            int luck = random.nextInt(5);
            if (luck < 3) rows.add(seen(key, luck == 0 ? null : Severity.values()[random.nextInt(3)]));
        }
        return rows;
    }

    /** The least memory there is: two maps, moved as the service moves its tables. */
    private static final class Memory {
        private final Absence absence;
        private final Set<NewsKind> reports = new HashSet<>(Set.of(NewsKind.NEW, NewsKind.RETURNED));
        private final Map<Digest, Known> known = new HashMap<>();

        Memory(Random random) {
            absence = Absence.values()[random.nextInt(3)];
            if (random.nextBoolean()) reports.add(NewsKind.CLEARED);
            if (random.nextBoolean()) reports.add(NewsKind.WORSENED);
        }

        List<Telling.Told<Digest>> check(List<Sighting> result) {
            var comparison = comparison(List.copyOf(known.values()), absence);
            result.forEach(comparison::see);
            comparison.finish().forEach(this::apply);
            var standings = known.values().stream()
                    .map(each -> new Telling.Standing<>(each.key(), each.now(), each.reported()));
            var outcome = new Telling(reports).choose(standings);
            outcome.told().forEach(told -> reportNow(told.subject()));
            outcome.letPass().forEach(passed -> reportNow(passed.subject()));
            return outcome.told();
        }

        private void apply(Move move) {
            if (move instanceof Move.Opened it) put(it.sighting().key(), it.now(), null);
            move.earlier().ifPresent(before -> put(before.key(), move.now(), before.reported()));
        }

        private void put(Digest key, Now now, @Nullable Reported reported) {
            known.put(key, new Known(key.low(), key, now, reported));
        }

        private void reportNow(Digest key) {
            put(key, known.get(key).now(), Reported.of(known.get(key).now()));
        }

        List<Known> untoldOpen() {
            return known.values().stream()
                    .filter(each -> each.now().state() == State.OPEN && each.reported() == null)
                    .toList();
        }
    }
}
