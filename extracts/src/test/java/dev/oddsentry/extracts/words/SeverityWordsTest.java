package dev.oddsentry.extracts.words;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.SeverityLooks;
import dev.oddsentry.core.extract.SeverityLooks.Look;
import dev.oddsentry.core.extract.Tone;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class SeverityWordsTest {
    private static final SeverityLooks OWN = new SeverityLooks(List.of(
            new Look(Severity.CRITICAL, "über {0} 'Grenze'", Tone.VIOLET),
            new Look(Severity.NOTICE, "on target", Tone.GREEN)));

    private static SeverityWords words(Language language, SeverityLooks looks) {
        return new SeverityWords(Phrases.in(language), looks);
    }

    private static Extract.Row row(Severity severity, UpdateKind kind) {
        return new Extract.Row(severity, Set.of(kind), List.of());
    }

    @Test
    void anOwnWordIsWrittenAsItIsAndTheOthersInTheLanguage() {
        var words = words(Language.DE, OWN);
        assertThat(words.signAndWord(Severity.CRITICAL)).isEqualTo("▲ über {0} 'Grenze'");
        assertThat(words.signAndWord(Severity.WARNING)).isEqualTo("◆ Warnung");
    }

    @Test
    void aGoodOneHasItsOwnSign() {
        var words = words(Language.EN, OWN);
        assertThat(words.signAndWord(Severity.NOTICE)).isEqualTo("✓ on target");
        assertThat(words.colour(row(Severity.NOTICE, UpdateKind.NEW))).isEqualTo(Tone.GREEN.onWhite());
    }

    @ParameterizedTest
    @EnumSource(Language.class)
    void countsUseTheOwnWord(Language language) {
        var words = words(language, OWN);
        assertThat(words.count(Severity.CRITICAL, 3)).isEqualTo("3 über {0} 'Grenze'");
        assertThat(words.criticalOf(2, 5)).isEqualTo(" (2 über {0} 'Grenze')");
        assertThat(words.criticalOf(1, 1)).isEqualTo(" (über {0} 'Grenze')");
        assertThat(words.criticalOf(2, 2)).startsWith(" (all").endsWith("über {0} 'Grenze')");
        assertThat(words.criticalOf(0, 2)).isEmpty();
    }

    @Test
    void countsAreAsUsualWithoutAWord() {
        var words = words(Language.EN, SeverityLooks.USUAL);
        assertThat(words.count(Severity.WARNING, 2)).isEqualTo("2 warnings");
        assertThat(words.criticalOf(2, 2)).isEqualTo(" (all critical)");
    }

    @Test
    void whatClearedIsGreenWhateverItWas() {
        assertThat(words(Language.EN, OWN).colour(row(Severity.CRITICAL, UpdateKind.CLEARED)))
                .isEqualTo(Tone.GREEN.onWhite());
    }

    /** By the formula of the Web Content Accessibility Guidelines 2.2. */
    @ParameterizedTest
    @EnumSource(Tone.class)
    void eachColourIsReadableOnWhite(Tone tone) {
        assertThat(1.05 / (luminance(tone.onWhite()) + 0.05)).isGreaterThan(4.5);
    }

    private static double luminance(String colour) {
        double[] parts = {0.2126, 0.7152, 0.0722};
        double sum = 0;
        for (int i = 0; i < parts.length; i++) {
            double value = Integer.parseInt(colour.substring(1 + 2 * i, 3 + 2 * i), 16) / 255.0;
            sum += parts[i] * (value <= 0.04045 ? value / 12.92 : Math.pow((value + 0.055) / 1.055, 2.4));
        }
        return sum;
    }
}
