package dev.oddsentry.service.bounces;

import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.config.Settings.MailSecurity;
import dev.oddsentry.service.mail.TrustedCertificates;
import dev.oddsentry.service.outbox.BounceHandler;
import jakarta.mail.Flags;
import jakarta.mail.Folder;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.Store;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.search.FlagTerm;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.util.List;
import java.util.Optional;
import java.util.Properties;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Reads the mailbox to which mail comes back, over IMAP. A report is taken away once its words are in the records; so is what answers by itself. What a
 * person wrote there stays, marked as seen.
 */
@Component
public class BounceMailbox {
    private static final Logger LOG = LoggerFactory.getLogger(BounceMailbox.class);
    private static final int MOST_AT_ONCE = 200;

    private final Settings.@Nullable Bounces settings;
    private final String timeLimit;
    private final BounceHandler cameBack;

    BounceMailbox(Settings settings, BounceHandler cameBack) {
        this.settings = settings.mail().bounces();
        this.timeLimit = String.valueOf(settings.mail().timeLimit().toMillis());
        this.cameBack = cameBack;
    }

    /** Empty where no mailbox is named. */
    public Optional<RecurringTask<Void>> task() {
        if (settings == null || settings.host() == null) return Optional.empty();
        var mailbox = settings;
        return Optional.of(Tasks.recurring("read-bounces", FixedDelay.of(mailbox.lookEvery()))
                .execute((_, _) -> look(mailbox)));
    }

    private void look(Settings.Bounces mailbox) {
        try (Store store = store(mailbox)) {
            try (Folder folder = store.getFolder(mailbox.folder())) {
                folder.open(Folder.READ_WRITE);
                var unread = folder.search(new FlagTerm(new Flags(Flags.Flag.SEEN), false));
                for (Message mail : Stream.of(unread).limit(MOST_AT_ONCE).toList()) read(mail);
            }
        } catch (MessagingException | IOException notReached) {
            LOG.warn("the mailbox of undeliverable mail cannot be read: {}", notReached.getMessage());
        }
    }

    private Store store(Settings.Bounces mailbox) throws MessagingException, IOException {
        String protocol = mailbox.security() == MailSecurity.TLS ? "imaps" : "imap";
        var properties = new Properties();
        String prefix = "mail." + protocol + ".";
        for (String step : List.of("connectiontimeout", "timeout", "writetimeout"))
            properties.put(prefix + step, timeLimit);
        // To read one must not mark it as seen: a process that dies before its words are in the records would never
        // come back to it.
        properties.put(prefix + "peek", "true");
        if (mailbox.security() != MailSecurity.NONE) {
            properties.put(prefix + "ssl.socketFactory", TrustedCertificates.socketFactory(mailbox.caFile()));
            properties.put(prefix + "ssl.checkserveridentity", "true");
        }
        if (mailbox.security() == MailSecurity.STARTTLS) {
            properties.put(prefix + "starttls.enable", "true");
            properties.put(prefix + "starttls.required", "true");
        }
        var store = Session.getInstance(properties).getStore(protocol);
        String secret = mailbox.secretFile() == null
                ? mailbox.secret()
                : Files.readString(mailbox.secretFile()).strip();
        store.connect(mailbox.host(), mailbox.port(), mailbox.username(), secret);
        return store;
    }

    /** A mail that cannot be read stays, marked as seen, and does not stop the others. */
    private void read(Message mail) throws MessagingException {
        try {
            var whole = whole(mail);
            var report = DeliveryReport.of(whole);
            report.ifPresent(this::record);
            if (report.isPresent() || isAutomatic(whole)) mail.setFlag(Flags.Flag.DELETED, true);
            else LOG.info("a message in the bounce mailbox is not a delivery report and was left there");
        } catch (MessagingException | IOException unreadable) {
            LOG.warn("a mail among undeliverable mail cannot be read", unreadable);
        }
        mail.setFlag(Flags.Flag.SEEN, true);
    }

    private static MimeMessage whole(Message mail) throws MessagingException, IOException {
        var bytes = new ByteArrayOutputStream();
        mail.writeTo(bytes);
        return new MimeMessage(Session.getInstance(new Properties()), new ByteArrayInputStream(bytes.toByteArray()));
    }

    /** As RFC 3834 has it, which senders of reports and answers keep to. */
    private static boolean isAutomatic(MimeMessage mail) throws MessagingException {
        String[] submitted = mail.getHeader("Auto-Submitted");
        return submitted != null && !submitted[0].strip().equalsIgnoreCase("no");
    }

    private void record(DeliveryReport report) {
        if (report.token() == null) {
            LOG.info("a delivery report answers no envelope of ours and is dropped");
            return;
        }
        for (var failure : report.failures()) {
            if (!cameBack.record(report.token(), failure.words(), failure.ofTheAddress()))
                LOG.info("a delivery report is about no message that is known and was taken");
        }
    }
}
