package dev.oddsentry.service.explanations;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.service.memory.FindingEventKind;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class EventWordsTest {
    @Test
    void noTwoKindsAreSaidAlike() {
        assertThat(Stream.of(FindingEventKind.values()).map(kind -> EventWords.brief(kind, null)))
                .doesNotHaveDuplicates();
    }

    @ParameterizedTest
    @EnumSource(FindingEventKind.class)
    void eachKindIsSaidWithoutItsName(FindingEventKind kind) {
        assertThat(EventWords.full(kind, Severity.WARNING.word())).doesNotContain("_" + kind.name(), kind.name());
        assertThat(EventWords.brief(kind, null)).isLowerCase();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "OPENED | opened as critical",
                "BACK_IN_WINDOW | back in the date window as critical",
                "PENDING_AGAIN | an exception (critical), pending again until it has lasted long enough",
                "SEVERITY_CHANGED | severity changed to critical",
                "AGED_OUT | aged out: it left the rule's date window, so it is not known whether it was fixed",
                "TAKE_ENDED | no longer taken, because it worsened or cleared",
                "CLEARED | cleared",
            })
    void sentenceSaysWhatHappenedAndWhatItMeans(FindingEventKind kind, String words) {
        assertThat(EventWords.full(kind, Severity.CRITICAL.word())).isEqualTo(words);
    }

    @Test
    void reportSaysWhichUpdatesItHad() {
        assertThat(EventWords.brief(FindingEventKind.REPORTED, new String[] {"worsened", "changed"}))
                .isEqualTo("reported as worsened, changed");
        assertThat(EventWords.brief(FindingEventKind.REPORTED, null)).isEqualTo("reported");
        assertThat(EventWords.inMessage(FindingEventKind.ESCALATED, null))
                .isEqualTo("escalated, because nobody had taken it,");
    }
}
