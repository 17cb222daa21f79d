package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class MailAddressTest {
    @ParameterizedTest
    @ValueSource(
            strings = {"ines.holm@skerryline.example", "o'neill+late@a-b.skerryline.example", "ase@måkehamn.example"})
    void anAddressIsOne(String text) {
        assertThat(MailAddress.isOne(text)).isTrue();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "the office",
                "ines.holm",
                "@skerryline.example",
                "åse@skerryline.example",
                "ines@-.example",
                "ines@skerryline..example",
                "ines@holm@skerryline.example",
                "Ines Holm <ines.holm@skerryline.example>",
                "ines.holm@skerryline.example, siv.tangen@skerryline.example",
                "ines.holm@skerryline.example\r\nBcc: all@skerryline.example"
            })
    void whatIsNoneOrMoreThanOneIsNone(String text) {
        assertThat(MailAddress.isOne(text)).isFalse();
    }

    @Test
    void nothingIsLongerThanMailServersTake() {
        assertThat(MailAddress.isOne("a".repeat(64) + "@" + "b".repeat(60) + (".c" + "b".repeat(61)).repeat(2) + ".be"))
                .isTrue();
        assertThat(MailAddress.isOne("a".repeat(64) + "@" + ("b".repeat(60) + ".").repeat(3) + "b".repeat(8)))
                .isFalse();
        assertThat(MailAddress.isOne("a".repeat(65) + "@b.example")).isFalse();
    }
}
