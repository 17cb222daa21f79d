package dev.oddsentry.cli;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.cli.common.ExitStatus;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What {@code odd} says of itself, and of commands that it does not understand; no service is asked. */
class WrongUseTest {
    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    private int odd(String line) {
        return Odd.run(new PrintWriter(out, true), new PrintWriter(err, true), line.split(" "));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "set-threshold late_minutes abc | \"abc\" is not a number. | odd set-threshold --help",
                "set-threshold late_minutes 5 --from June | \"June\" is not a date. Example: 2026-06-01 | odd set-threshold --help",
                "dates late --count few | \"few\" is not a whole number. | odd dates --help",
                "preview late --at noon | \"noon\" is not a time. Example: 2026-11-24T04:40:00Z | odd preview --help",
                "activate late --report all | \"all\" is not allowed here. Use updates, open, nothing. | odd activate --help",
                "bulk dismiss late | \"dismiss\" is not allowed here. Use pause, activate, check, hand-over, recipients. | odd bulk --help",
                "chekc late | \"chekc\" is not a command. | odd --help",
                "rules --colour | Unknown option: '--colour' | odd rules --help",
                "check | Missing required parameter: 'RULE' | odd check --help",
            })
    void wrongUseIsExplainedInOneSentence(String line, String message, String help) {
        assertThat(odd(line)).isEqualTo(ExitStatus.WRONG_USE);
        assertThat(err.toString()).startsWith(message).endsWith("Help: " + help + System.lineSeparator());
        assertThat(err.toString().lines()).hasSizeLessThan(7);
        assertThat(err.toString()).doesNotContain("Exception", "Usage:");
        assertThat(out.toString()).isEmpty();
    }

    @Test
    void helpListsEachCommandOnceUnderItsGroup() {
        assertThat(odd("--help")).isZero();
        var lines = out.toString().lines().toList();
        assertThat(lines)
                .containsSubsequence(
                        "Get started",
                        "Read data",
                        "Write rules",
                        "Try, send nothing",
                        "Run checks",
                        "Handle findings",
                        "Manage mail",
                        "Administer");
        var named = lines.stream()
                .filter(line -> line.matches("  [a-z].*"))
                .flatMap(line -> Stream.of(line.strip().split(" ")))
                .toList();
        assertThat(Odd.whole().getSubcommands().keySet())
                .allSatisfy(name -> assertThat(named).as(name).containsOnlyOnce(name));
        assertThat(lines).allSatisfy(line -> assertThat(line).hasSizeLessThanOrEqualTo(80));
        assertThat(lines).as("fits on a screen").hasSizeLessThanOrEqualTo(40);
    }

    @Test
    void helpOfAGroupDescribesItsCommands() {
        assertThat(odd("help mail")).isZero();
        assertThat(out.toString().lines()).hasSizeLessThanOrEqualTo(24).first().isEqualTo("Manage mail");
        assertThat(out.toString()).contains("  outbox          List messages and their delivery state.");
    }

    @Test
    void helpOfAllDescribesEachCommandOnce() {
        assertThat(odd("help all")).isZero();
        assertThat(Odd.whole().getSubcommands().keySet())
                .allSatisfy(name -> assertThat(
                                out.toString().lines().filter(line -> line.startsWith("  " + name + " ")))
                        .as(name)
                        .hasSize(1));
        assertThat(out.toString().lines()).allSatisfy(line -> assertThat(line).hasSizeLessThanOrEqualTo(90));
    }

    @Test
    void helpOfWhatIsNotThereNamesTheGroups() {
        assertThat(odd("help sailing")).isEqualTo(ExitStatus.WRONG_USE);
        assertThat(err.toString()).contains("There is no group or command \"sailing\"", "Manage mail");
        assertThat(odd("help check")).isZero();
        assertThat(out.toString()).contains("Usage: odd check");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "act",
                "history",
                "mail",
                "release",
                "event",
                "open",
                "readers",
                "leavers",
                "bad-addresses",
                "reader-languages"
            })
    void oldNamesAreGone(String old) {
        assertThat(odd(old)).isEqualTo(ExitStatus.WRONG_USE);
        assertThat(err.toString()).contains("\"" + old + "\" is not a command.");
    }
}
