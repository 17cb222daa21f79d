package dev.oddsentry.service.mail;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What replies and reports of mail systems mean (RFC 3463, RFC 5321). */
class ServerWordsTest {

    @ParameterizedTest
    @CsvSource({
        "550 5.1.1 no such mailbox, true",
        "550-5.1.1 no such mailbox, true",
        "5.1.10, true",
        "550 5.2.1 mailbox disabled, true",
        "550 5.1.7 bad sender address, false",
        "550 5.1.8 bad sender domain, false",
        "552 5.2.2 mailbox full, false",
        "552 5.3.4 message too big, false",
        "550 5.7.1 not allowed, false",
        "550 no such user, false",
        "5.3.4, false",
        "450 4.1.1 try later, false"
    })
    void onlySomeRefusalsAreOfTheAddress(String words, boolean ofTheAddress) {
        assertThat(ServerWords.isOfTheAddress(words)).isEqualTo(ofTheAddress);
    }

    @ParameterizedTest
    @CsvSource({
        "552, 552 message exceeds fixed maximum, true",
        "552, 552 5.3.4 too big, true",
        "554, 554 5.3.4 too big, true",
        "550, 550 5.2.3 too big for that mailbox, true",
        "552, 552 5.2.2 mailbox full, false",
        "550, 550 5.1.1 nobody, false",
        "250, 250 2.0.0 queued, false"
    })
    void someRefusalsAreOfTheSize(int code, String words, boolean ofItsSize) {
        assertThat(ServerWords.isOfItsSize(code, words)).isEqualTo(ofItsSize);
    }

    @Test
    void wordsCanBeStoredAndShown() {
        assertThat(ServerWords.line("550\0 no\r\n\tone \u0007here")).isEqualTo("550 no one here");
        assertThat(ServerWords.line((String) null)).isEmpty();
        assertThat(ServerWords.line("x".repeat(5000))).hasSizeLessThan(1100);
    }

    @Test
    void theNameSaidToServersIsFullOrAnAddress() {
        assertThat(HeloName.of(null)).matches("\\[[0-9a-fIPv6:.]+]|.+\\..+");
        assertThat(HeloName.of("mail.skerryline.example")).isEqualTo("mail.skerryline.example");
    }
}
