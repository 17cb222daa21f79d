package dev.oddsentry.service.config;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddsentry.service.mail.MailLab;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MailSettingsTest {
    /** The installation's own, one more, and every address of a domain. */
    @ParameterizedTest
    @CsvSource({
        "odd-sentry@skerryline.example, true",
        "Traffic@Skerryline.example, true",
        "anybody@reports.skerryline.example, true",
        "anybody@skerryline.example, false",
        "traffic@skerryline.example.elsewhere.example, false",
        "anybody@more.reports.skerryline.example, false",
        "anybody@notreports.skerryline.example, false"
    })
    void rulesMayHaveTheSendersThatTheOperatorNames(String address, boolean allowed) {
        assertThat(MailLab.settings(25).allowsSender(address)).isEqualTo(allowed);
    }
}
