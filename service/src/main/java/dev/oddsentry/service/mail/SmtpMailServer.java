package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import jakarta.mail.Address;
import jakarta.mail.MessagingException;
import jakarta.mail.SendFailedException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Properties;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPAddressSucceededException;
import org.eclipse.angus.mail.smtp.SMTPTransport;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Hands over by SMTP, one conversation for a message. Every step has a time limit; the library's own are infinite. */
@Component
class SmtpMailServer implements MailServer {
    private static final int START_MAIL_INPUT = 354;

    private final Settings.Mail settings;
    private final Session session;

    SmtpMailServer(Settings settings) {
        this.settings = settings.mail();
        this.session = Session.getInstance(properties(this.settings));
    }

    private static Properties properties(Settings.Mail settings) {
        String limit = String.valueOf(settings.timeLimit().toMillis());
        var properties = new Properties();
        properties.put("mail.smtp.host", settings.host());
        properties.put("mail.smtp.port", String.valueOf(settings.port()));
        properties.put("mail.smtp.connectiontimeout", limit);
        properties.put("mail.smtp.timeout", limit);
        properties.put("mail.smtp.writetimeout", limit);
        properties.put("mail.smtp.sendpartial", "true");
        properties.put("mail.smtp.reportsuccess", "true");
        properties.put("mail.smtp.from", settings.from());
        properties.put("mail.smtp.localhost", "odd-sentry");
        // Without it each message waits some 45 ms for a delayed acknowledgement.
        properties.put("mail.smtp.socketFactory", new NoDelaySocketFactory());
        return properties;
    }

    @Override
    public Map<String, Reply> handOver(byte[] mime, List<String> to) {
        try (var transport = (SMTPTransport) session.getTransport("smtp")) {
            try {
                transport.connect();
                transport.sendMessage(new MimeMessage(session, new ByteArrayInputStream(mime)), addresses(to));
                return all(to, new Reply.Taken(words(transport)));
            } catch (SendFailedException answered) {
                return perAddress(answered, to, transport);
            } catch (MessagingException broken) {
                return all(to, ofBroken(broken, transport));
            }
        } catch (MessagingException notClosed) {
            return all(to, new Reply.Delayed("The mail server could not be asked: " + notClosed.getMessage()));
        }
    }

    private static Address[] addresses(List<String> to) throws MessagingException {
        var addresses = new Address[to.size()];
        for (int i = 0; i < addresses.length; i++) addresses[i] = new InternetAddress(to.get(i), true);
        return addresses;
    }

    /** The library chains one exception for each address, successes included. */
    private static Map<String, Reply> perAddress(
            SendFailedException answered, List<String> to, SMTPTransport transport) {
        var replies = new LinkedHashMap<String, Reply>();
        for (Exception e = answered;
                e != null;
                e = e instanceof MessagingException chained ? chained.getNextException() : null) {
            switch (e) {
                case SMTPAddressSucceededException taken ->
                    replies.put(taken.getAddress().getAddress(), new Reply.Taken(line(taken)));
                case SMTPAddressFailedException failed ->
                    replies.put(failed.getAddress().getAddress(), ofCode(failed.getReturnCode(), line(failed)));
                default -> {}
            }
        }
        Reply others = ofCode(transport.getLastReturnCode(), words(transport));
        to.forEach(address -> replies.putIfAbsent(address, others));
        return replies;
    }

    private static Reply ofCode(int code, String words) {
        if (code >= 500) return new Reply.Refused(words);
        return code >= 200 && code < 300 ? new Reply.Taken(words) : new Reply.Delayed(words);
    }

    private Reply ofBroken(MessagingException broken, SMTPTransport transport) {
        boolean dataWentOut = transport.getLastReturnCode() == START_MAIL_INPUT;
        if (dataWentOut) return new Reply.Unsure("The line was lost after the message had gone out: " + line(broken));
        String where = settings.host() + ":" + settings.port();
        return new Reply.Delayed("The mail server " + where + " did not take it: " + line(broken));
    }

    private static Map<String, Reply> all(List<String> to, Reply reply) {
        var replies = new LinkedHashMap<String, Reply>();
        to.forEach(address -> replies.put(address, reply));
        return replies;
    }

    private static String words(SMTPTransport transport) {
        return line(transport.getLastServerResponse());
    }

    private static String line(Exception e) {
        return line(e.getMessage());
    }

    private static String line(@Nullable String text) {
        return text == null ? "" : text.strip().replaceAll("\\s+", " ");
    }
}
