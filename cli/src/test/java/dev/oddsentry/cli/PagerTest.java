package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Long answers on a terminal. */
class PagerTest {
    @TempDir
    Path folder;

    @Test
    void onlyListsOnATerminalArePaged() {
        assertThat(Pager.command(true, Map.of(), "rules")).contains("less -FRSX");
        assertThat(Pager.command(false, Map.of(), "rules")).as("in a pipe").isEmpty();
        assertThat(Pager.command(true, Map.of())).as("nothing asked").isEmpty();
    }

    @ParameterizedTest
    @ValueSource(strings = {"login", "check", "new", "doctor", "backtest"})
    void commandsThatAskOrTalkAreNotPaged(String command) {
        assertThat(Pager.command(true, Map.of(), command)).isEmpty();
    }

    @Test
    void environmentNamesThePagerOrNone() {
        assertThat(Pager.command(true, Map.of("PAGER", "more"), "rules")).contains("more");
        assertThat(Pager.command(true, Map.of("PAGER", "more", "ODD_PAGER", "most"), "rules"))
                .contains("most");
        assertThat(Pager.command(true, Map.of("PAGER", "more", "ODD_PAGER", ""), "rules"))
                .isEmpty();
        assertThat(Pager.command(true, Map.of("PAGER", "cat"), "rules")).isEmpty();
    }

    @Test
    void everythingIsReadBeforeItEnds() throws Exception {
        Path read = folder.resolve("read");
        try (var pager =
                Pager.start("cat > '" + read + "'", StandardCharsets.UTF_8).orElseThrow()) {
            for (int i = 0; i < 1000; i++) pager.out().write("Måkehamn " + i + "\n");
        }
        assertThat(Files.readAllLines(read)).hasSize(1000).last().isEqualTo("Måkehamn 999");
    }

    @Test
    void readerWhoLeavesEarlyBreaksNothing() {
        assertThatCode(() -> {
                    try (var pager = Pager.start("true", StandardCharsets.UTF_8).orElseThrow()) {
                        for (int i = 0; i < 100_000; i++) pager.out().write("a line that nobody reads\n");
                    }
                })
                .doesNotThrowAnyException();
    }
}
