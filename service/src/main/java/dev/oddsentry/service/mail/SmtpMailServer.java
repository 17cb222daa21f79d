package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import jakarta.annotation.PreDestroy;
import jakarta.mail.Address;
import jakarta.mail.MessagingException;
import jakarta.mail.SendFailedException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.eclipse.angus.mail.smtp.SMTPAddressFailedException;
import org.eclipse.angus.mail.smtp.SMTPMessage;
import org.eclipse.angus.mail.smtp.SMTPTransport;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/** Hands over by SMTP, one conversation for a message. Every step has a time limit; the library's own are infinite. */
@Component
class SmtpMailServer implements MailServer {
    private static final Logger LOG = LoggerFactory.getLogger(SmtpMailServer.class);

    private final List<SmtpServer> servers;
    private final @Nullable ReturnPaths returnPaths;

    @Autowired
    SmtpMailServer(Settings settings, ReturnPaths returnPaths) {
        this(settings.mail(), settings.mail().bounces() == null ? null : returnPaths);
    }

    /** @param returnPaths {@code null} if reports come back to nobody */
    SmtpMailServer(Settings.Mail settings, @Nullable ReturnPaths returnPaths) {
        this.servers = SmtpServer.inOrder(settings);
        this.returnPaths = returnPaths;
    }

    /** In the order in which they are tried. */
    List<SmtpServer> servers() {
        return servers;
    }

    @PreDestroy
    void close() {
        servers.forEach(SmtpServer::close);
    }

    /** Where reports come back, each recipient gets the message in an envelope of their own. */
    @Override
    public Map<String, Reply> handOver(UUID message, byte[] mime, List<String> to) {
        if (returnPaths == null) return handOver((String) null, mime, to);
        var replies = new LinkedHashMap<String, Reply>();
        for (String recipient : to) {
            replies.putAll(handOver(returnPaths.of(message, recipient), mime, List.of(recipient)));
            if (replies.get(recipient) instanceof Reply.Delayed delayed && delayed.forEverybody()) {
                to.forEach(other -> replies.putIfAbsent(other, delayed));
                break;
            }
        }
        return replies;
    }

    /** The server that is reached first, in the order of the settings. */
    private Map<String, Reply> handOver(@Nullable String returnPath, byte[] mime, List<String> to) {
        Map<String, Reply> replies = Map.of();
        for (var server : servers) {
            try (var line = server.line()) {
                return handOver(line, returnPath, mime, to);
            } catch (MessagingException notReached) {
                replies = all(to, server.notTaken(notReached));
            }
        }
        return replies;
    }

    private static Map<String, Reply> handOver(
            SmtpServer.Line line, @Nullable String returnPath, byte[] mime, List<String> to) throws MessagingException {
        var message = new WatchedMessage(line.session(), mime);
        if (returnPath != null) message.setEnvelopeFrom(returnPath);
        var transport = line.transport();
        try {
            transport.sendMessage(message, addresses(to));
            line.keep();
            return all(to, new Reply.Taken(words(transport)));
        } catch (MessagingException e) {
            boolean answered = transport.getLastReturnCode() > 0;
            if (!answered && message.hasGoneOut()) return all(to, lostAfterTheData(e));
            return answered && e instanceof SendFailedException sent
                    ? perAddress(sent, to, transport)
                    : all(to, line.server().notTaken(e));
        }
    }

    private static Address[] addresses(List<String> to) throws MessagingException {
        var addresses = new Address[to.size()];
        for (int i = 0; i < addresses.length; i++) addresses[i] = new InternetAddress(to.get(i), true);
        return addresses;
    }

    /**
     * The library throws this also where all went well, to tell each address's fate. Those it names as sent got the message, with the
     * server's answer to the data; a recipient that was merely accepted before the data failed did not.
     */
    private static Map<String, Reply> perAddress(
            SendFailedException answered, List<String> to, SMTPTransport transport) {
        var replies = new LinkedHashMap<String, Reply>();
        for (Address sent : orNone(answered.getValidSentAddresses())) {
            replies.put(((InternetAddress) sent).getAddress(), new Reply.Taken(words(transport)));
        }
        for (Exception e = answered; e instanceof MessagingException chained; e = chained.getNextException()) {
            if (e instanceof SMTPAddressFailedException failed) {
                replies.putIfAbsent(failed.getAddress().getAddress(), notTaken(failed.getReturnCode(), line(failed)));
            }
        }
        Reply others = notTaken(transport.getLastReturnCode(), words(transport));
        to.forEach(address -> replies.putIfAbsent(address, others));
        return replies;
    }

    private static Address[] orNone(Address @Nullable [] addresses) {
        return addresses == null ? new Address[0] : addresses;
    }

    private static Reply notTaken(int code, String words) {
        return code >= 500 ? new Reply.Refused(words) : new Reply.Delayed(words, false);
    }

    private static Reply lostAfterTheData(MessagingException broken) {
        return new Reply.Unsure("The line was lost after the message had gone out: " + line(broken));
    }

    /** Knows whether all of it was written to the line, which the library does not tell. */
    private static final class WatchedMessage extends SMTPMessage {
        private boolean goneOut;

        WatchedMessage(Session session, byte[] mime) throws MessagingException {
            super(session, new ByteArrayInputStream(mime));
        }

        @Override
        public void writeTo(OutputStream out, String[] ignoredHeaders) throws IOException, MessagingException {
            super.writeTo(out, ignoredHeaders);
            goneOut = true;
        }

        boolean hasGoneOut() {
            return goneOut;
        }
    }

    private static Map<String, Reply> all(List<String> to, Reply reply) {
        var replies = new LinkedHashMap<String, Reply>();
        to.forEach(address -> replies.put(address, reply));
        return replies;
    }

    private static String words(SMTPTransport transport) {
        return line(transport.getLastServerResponse());
    }

    static String line(Exception e) {
        return line(e.getMessage());
    }

    static String line(@Nullable String text) {
        return text == null ? "" : text.strip().replaceAll("\\s+", " ");
    }
}
