package dev.oddsentry.service.evaluation;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.EvaluatedRow;
import java.io.IOException;
import java.math.BigDecimal;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SeenRowsTest {
    private static EvaluatedRow evaluatedRow(int i) {
        var cells = new ArrayList<Object>(Arrays.asList(
                (long) i,
                i % 7 == 0 ? null : "Måkehamn " + i,
                new BigDecimal("1.50"),
                LocalDate.MAX,
                Instant.parse("2026-11-24T04:40:00.000001Z"),
                i % 2 == 0));
        return new EvaluatedRow(
                new Digest(1, i), cells.subList(0, 2), Severity.values()[i % 3], true, new Digest(2, i), cells);
    }

    private static long filesPutAside() throws IOException {
        try (var files = Files.list(Path.of(System.getProperty("java.io.tmpdir")))) {
            return files.filter(file -> file.getFileName().toString().startsWith("odd-exceptions-"))
                    .count();
        }
    }

    /** On both sides of where the file begins. */
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 4_999, 5_000, 5_001, 12_000})
    void givesBackWhatWasPutInInItsOrderAsOftenAsAsked(int count) throws IOException {
        long before = filesPutAside();
        try (var exceptions = new SeenRows()) {
            for (int i = 0; i < count; i++) exceptions.add(evaluatedRow(i));
            for (int round = 0; round < 2; round++) {
                var back = all(exceptions);
                assertThat(back).hasSize(count);
                for (int i = 0; i < count; i++) assertThat(back.get(i)).isEqualTo(evaluatedRow(i));
            }
            assertThat(exceptions.count()).isEqualTo(count);
            assertThat(exceptions.count(Severity.NOTICE)).isEqualTo((count + 2) / 3);
            assertThat(exceptions.bySeverity().values().stream()
                            .mapToLong(Long::longValue)
                            .sum())
                    .isEqualTo(count);
        }
        assertThat(filesPutAside()).as("nothing is left behind").isEqualTo(before);
    }

    @Test
    void moreCanBePutInAfterSomeoneWentThroughThem() {
        try (var exceptions = new SeenRows()) {
            for (int i = 0; i < 6_000; i++) exceptions.add(evaluatedRow(i));
            assertThat(all(exceptions)).hasSize(6_000);
            exceptions.add(evaluatedRow(6_000));
            assertThat(all(exceptions).getLast()).isEqualTo(evaluatedRow(6_000));
        }
    }

    private static List<EvaluatedRow> all(SeenRows exceptions) {
        var all = new ArrayList<EvaluatedRow>();
        exceptions.forEach(all::add);
        return all;
    }

    @Test
    void wideRowsGoToTheFileSooner() {
        try (var exceptions = new SeenRows()) {
            for (int i = 0; i < 300; i++) exceptions.add(wide(i));
            assertThat(all(exceptions)).hasSize(300);
            for (int i = 0; i < 300; i++)
                assertThat(all(exceptions).get(i).identity()).containsExactly((long) i);
        }
    }

    private static EvaluatedRow wide(long number) {
        return new EvaluatedRow(
                new Digest(number, number),
                List.of(number),
                Severity.WARNING,
                true,
                new Digest(0, number),
                List.of(number, "y".repeat(50_000)));
    }
}
