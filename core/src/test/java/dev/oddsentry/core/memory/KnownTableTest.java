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
import org.junit.jupiter.api.Test;

class KnownTableTest {
    private static CurrentFinding now(Random random) {
        var start = new MinimumDuration.Start(random.nextInt(9), Instant.ofEpochSecond(random.nextInt(999)));
        return new CurrentFinding(
                FindingState.values()[random.nextInt(4)],
                Severity.values()[random.nextInt(3)],
                new Digest(random.nextLong(), random.nextLong()),
                random.nextInt(4) == 0 ? start : null,
                random.nextInt(4) == 0 ? start : null,
                random.nextInt(4) == 0 ? start : null,
                random.nextBoolean());
    }

    @Test
    void holdsWhatAnOrdinaryMapWouldHold() {
        Seeded.cases(60, random -> {
            Map<Digest, StoredFinding> plain = new HashMap<>();
            // Few different halves, so that keys collide and places run over the end.
            while (plain.size() < 200) {
                var key =
                        new Digest(random.nextInt(20), random.nextBoolean() ? -random.nextInt(50) : random.nextLong());
                plain.putIfAbsent(key, new StoredFinding(plain.size() + 1L, key, now(random)));
            }
            var table = new KnownTable(random.nextInt(300));
            plain.values().forEach(table::add);
            for (var known : plain.values()) assertThat(table.find(known.key())).isEqualTo(known);
            for (var state : FindingState.values()) {
                assertThat(table.countOf(state))
                        .isEqualTo(plain.values().stream()
                                .filter(each -> each.now().state() == state)
                                .count());
            }
            var seen = new HashSet<Digest>();
            for (int i = 0; i < 300; i++) {
                var key = random.nextBoolean()
                        ? List.copyOf(plain.keySet()).get(random.nextInt(plain.size()))
                        : new Digest(random.nextInt(20), random.nextInt(40));
                assertThat(table.see(key)).as("the first of its identity").isEqualTo(seen.add(key));
                assertThat(table.find(key)).isEqualTo(plain.get(key));
            }
            var notSeen = new ArrayList<StoredFinding>();
            table.forEachNotSeen(notSeen::add);
            plain.keySet().removeAll(seen);
            assertThat(notSeen).containsExactlyInAnyOrderElementsOf(plain.values());
        });
    }

    @Test
    void refusesTwoFindingsOfOneKey() {
        var known = new StoredFinding(
                1, new Digest(1, 2), CurrentFinding.of(FindingState.OPEN, Severity.NOTICE, new Digest(3, 4)));
        assertThatThrownBy(() -> KnownTable.of(List.of(known, known))).isInstanceOf(IllegalStateException.class);
    }
}
