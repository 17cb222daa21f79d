package dev.oddsentry.service.messages;

import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.service.failures.CheckFailureException;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;

class HeldRowsTest {

    @Test
    void rowsOverThePartOfTheMemoryFailInWords() {
        var held = new HeldRows(2 * 1024 * 1024);
        assertThatThrownBy(() -> {
                    for (int i = 0; i < 1_000; i++) held.add(List.of((long) i, "y".repeat(45_000)));
                })
                .isInstanceOf(CheckFailureException.class)
                .hasMessageContaining("more than 2 MiB of memory");
    }

    @Test
    void manyNarrowRowsCountByTheirCells() {
        var held = new HeldRows(2 * 1024 * 1024);
        assertThatCode(() -> {
                    for (int i = 0; i < 2_000; i++) held.add(Collections.nCopies(10, (Object) 1L));
                })
                .doesNotThrowAnyException();
        assertThatThrownBy(() -> {
                    for (int i = 0; i < 2_000; i++) held.add(Collections.nCopies(10, (Object) 1L));
                })
                .isInstanceOf(CheckFailureException.class);
    }
}
