package dev.oddsentry.core.finding;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.HashMap;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class DigestTableTest {
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 2, 1_000, 20_000})
    void isAMapFromDigestsToNumbers(int size) {
        var random = new Random(size);
        var expected = new HashMap<Digest, Long>();
        var table = new DigestTable(size);
        while (expected.size() < size) {
            // Half of them crowd at one end, and wrap around.
            long low = random.nextBoolean() ? random.nextLong() : -1 - random.nextInt(50);
            var digest = new Digest(random.nextLong(), low);
            long number = random.nextLong(Long.MAX_VALUE - 1);
            expected.put(digest, number);
            table.put(digest, number);
        }
        expected.forEach((digest, number) -> assertThat(table.get(digest)).isEqualTo(number));
        assertThat(table.has(new Digest(1, 2))).isFalse();
        assertThat(table.get(new Digest(random.nextLong(), -1))).isEqualTo(-1);
        expected.keySet().stream().limit(1).forEach(digest -> {
            table.put(digest, 0);
            assertThat(table.get(digest)).as("put again").isZero();
        });
        assertThatThrownBy(() -> table.put(new Digest(7, 7), 1)).isInstanceOf(IllegalStateException.class);
    }
}
