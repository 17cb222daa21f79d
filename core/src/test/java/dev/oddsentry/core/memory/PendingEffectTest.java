package dev.oddsentry.core.memory;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.core.memory.PendingEffect.EditEffect;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Two effects between two checks: of edits the strongest counts, of report choices the last. */
class PendingEffectTest {

    static Stream<PendingEffect> all() {
        return Stream.of(EditEffect.values())
                .flatMap(edit -> Stream.of(ReportChoice.values()).map(report -> new PendingEffect(edit, report)));
    }

    /** Columns: the first edit, the second, the one that counts; written from the meaning, each pair once. */
    @ParameterizedTest
    @CsvSource({
        "NONE, NONE, NONE",
        "NONE, OTHER_COLUMNS, OTHER_COLUMNS",
        "NONE, OTHER_CONDITIONS, OTHER_CONDITIONS",
        "NONE, OTHER_KEY, OTHER_KEY",
        "OTHER_COLUMNS, OTHER_COLUMNS, OTHER_COLUMNS",
        "OTHER_COLUMNS, OTHER_CONDITIONS, OTHER_CONDITIONS",
        "OTHER_COLUMNS, OTHER_KEY, OTHER_KEY",
        "OTHER_CONDITIONS, OTHER_CONDITIONS, OTHER_CONDITIONS",
        "OTHER_CONDITIONS, OTHER_KEY, OTHER_KEY",
        "OTHER_KEY, OTHER_KEY, OTHER_KEY",
    })
    void strongestEditCounts(EditEffect one, EditEffect other, EditEffect counts) {
        assertThat(PendingEffect.of(one).and(PendingEffect.of(other)).edit()).isEqualTo(counts);
        assertThat(PendingEffect.of(other).and(PendingEffect.of(one)).edit()).isEqualTo(counts);
    }

    @ParameterizedTest
    @CsvSource({
        "NONE, NONE, NONE",
        "NONE, UPDATES, UPDATES",
        "NONE, OPEN, OPEN",
        "NONE, TREAT_AS_KNOWN, TREAT_AS_KNOWN",
        "UPDATES, NONE, UPDATES",
        "UPDATES, UPDATES, UPDATES",
        "UPDATES, OPEN, OPEN",
        "UPDATES, TREAT_AS_KNOWN, TREAT_AS_KNOWN",
        "OPEN, NONE, OPEN",
        "OPEN, UPDATES, UPDATES",
        "OPEN, OPEN, OPEN",
        "OPEN, TREAT_AS_KNOWN, TREAT_AS_KNOWN",
        "TREAT_AS_KNOWN, NONE, TREAT_AS_KNOWN",
        "TREAT_AS_KNOWN, UPDATES, UPDATES",
        "TREAT_AS_KNOWN, OPEN, OPEN",
        "TREAT_AS_KNOWN, TREAT_AS_KNOWN, TREAT_AS_KNOWN",
    })
    void lastReportChoiceCounts(ReportChoice first, ReportChoice second, ReportChoice counts) {
        assertThat(PendingEffect.of(first).and(PendingEffect.of(second)).report())
                .isEqualTo(counts);
    }

    /** Neither axis touches the other: an edit is not forgotten because a person chose what to report, and the reverse. */
    @ParameterizedTest
    @MethodSource("all")
    void axesAreIndependent(PendingEffect effect) {
        for (var later : all().toList()) {
            var both = effect.and(later);
            assertThat(both.edit())
                    .isEqualTo(PendingEffect.of(effect.edit())
                            .and(PendingEffect.of(later.edit()))
                            .edit());
            assertThat(both.report())
                    .isEqualTo(PendingEffect.of(effect.report())
                            .and(PendingEffect.of(later.report()))
                            .report());
        }
    }

    @Test
    void effectsCanBeGroupedInAnyWay() {
        var effects = all().toList();
        for (var a : effects)
            for (var b : effects)
                for (var c : effects) assertThat(a.and(b).and(c)).isEqualTo(a.and(b.and(c)));
    }

    @ParameterizedTest
    @CsvSource({
        // edit, report: none, clears silently, treats as known, reports open, starts over, watches other columns
        "NONE,             NONE,           true,  false, false, false, false, false",
        "NONE,             UPDATES,        true,  false, false, false, false, false",
        "NONE,             OPEN,           false, false, false, true,  false, false",
        "NONE,             TREAT_AS_KNOWN, false, true,  true,  false, false, false",
        "OTHER_COLUMNS,    NONE,           false, false, false, false, false, true",
        "OTHER_COLUMNS,    OPEN,           false, false, false, true,  false, true",
        "OTHER_CONDITIONS, NONE,           false, true,  false, false, false, true",
        "OTHER_CONDITIONS, OPEN,           false, true,  false, true,  false, true",
        "OTHER_CONDITIONS, TREAT_AS_KNOWN, false, true,  true,  false, false, true",
        "OTHER_KEY,        NONE,           false, true,  false, false, true,  false",
        "OTHER_KEY,        TREAT_AS_KNOWN, false, true,  true,  false, true,  false",
    })
    void eachEffectMeansWhatItSays(
            EditEffect edit,
            ReportChoice report,
            boolean none,
            boolean clearsSilently,
            boolean treatsAsKnown,
            boolean reportsOpen,
            boolean startsOver,
            boolean watchesOtherColumns) {
        var effect = new PendingEffect(edit, report);
        assertThat(List.of(
                        effect.isNone(),
                        effect.clearsSilently(),
                        effect.treatsAsKnown(),
                        effect.reportsOpen(),
                        effect.startsOver(),
                        effect.watchesOtherColumns()))
                .containsExactly(none, clearsSilently, treatsAsKnown, reportsOpen, startsOver, watchesOtherColumns);
    }
}
