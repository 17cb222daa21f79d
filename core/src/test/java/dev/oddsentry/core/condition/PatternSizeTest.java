package dev.oddsentry.core.condition;

import static org.assertj.core.api.Assertions.assertThat;

import com.google.re2j.Pattern;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class PatternSizeTest {

    @ParameterizedTest
    @ValueSource(
            strings = {
                "(((a{1000}){1000}){100})",
                "(a{100}){101}",
                "((a?){50}){500}",
                "([a-z]{1,900}x){30}",
                "(?:(?:\\d{99}){99}){99}",
                "((((((a{9}){9}){9}){9}){9}){9})",
                "(a|b|c{800}){200,}",
                "(\\Qabc\\E{1000}){90}"
            })
    void repetitionsOfRepetitionsAreTooLarge(String pattern) {
        assertThat(PatternSize.isTooLarge(pattern)).isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "^SK-\\d{3,4}$",
                "(?i)storm|fog|ice",
                "[^\\]a]{1,200}",
                "(a{10}){10}",
                "\\Q{1000}{1000}\\E",
                "a{,5}",
                "a{b}",
                "{1000}",
                "(((",
                ")))",
                "[",
                "\\",
                "x{9"
            })
    void whatPeopleWriteIsNot(String pattern) {
        assertThat(PatternSize.isTooLarge(pattern)).isFalse();
    }

    /** What is let through compiles to a program that memory has room for; the library says nothing of its size, so the compiling itself is the proof. */
    @Test
    void randomPatternsThatAreLetThroughCompile() {
        var random = new Random(20_261_128);
        int compiled = 0;
        for (int i = 0; i < 3_000; i++) {
            var pattern = new StringBuilder("a");
            for (int j = random.nextInt(6); j > 0; j--)
                pattern.insert(0, '(')
                        .append("b?){")
                        .append(1 + random.nextInt(40))
                        .append('}');
            if (PatternSize.isTooLarge(pattern.toString())) continue;
            Pattern.compile(pattern.toString());
            compiled++;
        }
        assertThat(compiled).isGreaterThan(300);
    }
}
