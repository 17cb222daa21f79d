package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import java.time.Duration;
import java.util.List;
import org.springframework.util.unit.DataSize;

/** The hand-over by itself, for the benchmark. */
public final class MailLab {
    private MailLab() {}

    /** A mail server on loopback, as the service speaks with it. */
    public static MailServer at(int port) {
        return new SmtpMailServer(settings(port), 8, null);
    }

    public static Settings.Mail settings(int port) {
        return new Settings.Mail(
                "127.0.0.1",
                port,
                "odd-sentry@skerryline.example",
                "Odd Sentry",
                Duration.ofSeconds(20),
                Duration.ofSeconds(15),
                Duration.ofHours(24),
                DataSize.ofMegabytes(10),
                Settings.MailSecurity.NONE,
                null,
                Settings.MailLogIn.PASSWORD,
                null,
                null,
                null,
                List.of(),
                List.of(),
                List.of("traffic@skerryline.example", "@reports.skerryline.example"),
                null,
                Duration.ofHours(1),
                null,
                null);
    }
}
