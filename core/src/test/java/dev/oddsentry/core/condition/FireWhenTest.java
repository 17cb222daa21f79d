package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FireWhenTest {
    /** Seven exceptions, two of them critical; three news, one of them worsened. */
    private static final FireWhen.Counts COUNTS = new FireWhen.Counts() {
        @Override
        public long exceptions(String severity) {
            return severity.isEmpty() ? 7 : severity.equals("critical") ? 2 : 0;
        }

        @Override
        public long news(String kind) {
            return kind.isEmpty() ? 3 : kind.equals("worsened") ? 1 : 0;
        }
    };

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "exceptions() > 6; true",
                "updates() > 0 and exceptions('critical') >= 2; true",
                "updates('worsened') > 1; false",
                "updates() / exceptions() > 0.5; false",
                "true; true",
            })
    void countsTheWholeCheck(String condition, boolean holds) {
        var read = FireWhen.read(condition).readable();
        assertThat(read).isNotNull();
        assertThat(read.holds(COUNTS)).isEqualTo(holds);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "delay_min > 5 | no columns here; a check counts with exceptions(), updates() and updates('new')",
                "updates('nwe') > 5 | 'nwe' is none of new, returned, worsened, improved, changed, cleared, moved, reminder",
                "exceptions(5) > 5 | write exceptions() or exceptions('notice')",
                "exceptions() | a condition is true or not, this is a number",
            })
    void whatACheckDoesNotCountIsRefusedInWords(String condition, String words) {
        assertThat(FireWhen.read(condition).problems().getFirst().message()).isEqualTo(words);
    }
}
