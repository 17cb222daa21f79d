package dev.oddsentry.core.definition;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class SenderTest {
    @ParameterizedTest
    @CsvSource(
            quoteCharacter = '\'',
            value = {
                "Traffic reporting, Traffic reporting,",
                "'Måkehamn, drift', 'Måkehamn, drift',",
                "traffic@skerryline.example,, traffic@skerryline.example",
                "Traffic <traffic@skerryline.example>, Traffic, traffic@skerryline.example",
                "'\"Holm, Ines\" <ines@skerryline.example>', 'Holm, Ines', ines@skerryline.example"
            })
    void nameAndAddressAreTakenApartAndWrittenAgain(String written, @Nullable String name, @Nullable String address) {
        assertThat(Sender.of(written)).isEqualTo(new Sender(name, address));
        assertThat(Sender.of(written).text()).isEqualTo(written);
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"traffic@", "a@b.example, c@d.example", "Traffic <traffic>", "Traffic\r\nBcc: x@y.example", " "})
    void whatIsNoSenderIsRefused(String written) {
        assertThatThrownBy(() -> Sender.of(written)).isInstanceOf(InvalidDefinitionException.class);
    }
}
