package dev.oddsentry.core.memory;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** What two acts between two checks come to: the stronger edit, and the last wish. */
class TransitionTest {

    @ParameterizedTest
    @CsvSource({
        "ORDINARY, RE_BASE, RE_BASE",
        "RE_BASE, RE_JUDGE, RE_JUDGE",
        "RE_JUDGE, RE_BASE, RE_JUDGE",
        "START_ANEW, RE_JUDGE, START_ANEW",
        "START_ANEW, TAKE_AS_KNOWN, START_ANEW_AS_KNOWN",
        "TAKE_AS_KNOWN, START_ANEW, START_ANEW_AS_KNOWN",
        "START_ANEW_AS_KNOWN, TELL_OPEN, START_ANEW",
        "TAKE_AS_KNOWN, TELL_OPEN, TELL_OPEN",
        "TELL_OPEN, TAKE_AS_KNOWN, TAKE_AS_KNOWN",
        "RE_JUDGE, TELL_OPEN, RE_JUDGE_TELL_OPEN",
        "TELL_OPEN, RE_JUDGE, RE_JUDGE_TELL_OPEN",
        "RE_JUDGE_TELL_OPEN, TAKE_AS_KNOWN, TAKE_AS_KNOWN",
        "TAKE_AS_KNOWN, RE_JUDGE, TAKE_AS_KNOWN"
    })
    void theStrongerEditAndTheLastWishCount(Transition first, Transition second, Transition both) {
        assertThat(first.and(second)).isEqualTo(both);
    }

    @ParameterizedTest
    @EnumSource
    void nothingChangesNothingAndTwiceIsOnce(Transition each) {
        assertThat(each.and(Transition.ORDINARY)).isEqualTo(each);
        assertThat(Transition.ORDINARY.and(each)).isEqualTo(each);
        assertThat(each.and(each)).isEqualTo(each);
    }

    @Test
    void whoWantsNothingToldIsToldNothing() {
        for (var before : Transition.values())
            assertThat(before.and(Transition.TAKE_AS_KNOWN).takesAsKnown())
                    .as(before.name())
                    .isTrue();
    }
}
