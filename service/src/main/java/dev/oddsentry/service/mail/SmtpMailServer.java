package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.ids.MessageId;
import jakarta.annotation.PreDestroy;
import jakarta.mail.Address;
import jakarta.mail.MessagingException;
import jakarta.mail.SendFailedException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.time.Duration;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalLong;
import java.util.stream.Collectors;
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

    /** A slow line is given that much time for a message, beside the steps of the conversation. */
    private static final long BYTES_A_MILLISECOND = 32;

    private static final int STEPS = 3;
    /** The server waits for the message; where the line breaks then, it may have all of it. */
    private static final int GO_ON = 354;

    private final Settings.Mail settings;
    private final List<SmtpServer> servers;
    private final @Nullable ReturnPaths returnPaths;

    @Autowired
    SmtpMailServer(Settings settings, ReturnPaths returnPaths) {
        this(settings.mail(), settings.work().mailAtOnce(), settings.mail().bounces() == null ? null : returnPaths);
    }

    /**
     * @param workers how many messages are handed over at once
     * @param returnPaths {@code null} if reports come back to nobody
     */
    SmtpMailServer(Settings.Mail settings, int workers, @Nullable ReturnPaths returnPaths) {
        this.settings = settings;
        this.servers = SmtpServer.inOrder(settings, workers);
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
    public Map<String, Reply> handOver(MessageId message, byte[] mime, List<String> to) {
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

    @Override
    public Duration closedFor() {
        return servers.stream()
                .map(server -> server.rest().closedFor())
                .min(Comparator.naturalOrder())
                .orElseThrow();
    }

    @Override
    public OptionalLong largest() {
        return servers.stream()
                .mapToLong(SmtpServer::largest)
                .filter(size -> size > 0)
                .min();
    }

    /** The server that is reached first, in the order of the settings. */
    private Map<String, Reply> handOver(@Nullable String returnPath, byte[] mime, List<String> to) {
        Map<String, Reply> replies = Map.of();
        for (var server : servers) {
            if (!server.rest().begin()) {
                replies = all(to, server.notTried());
                continue;
            }
            boolean answered = false;
            try {
                replies = talk(server, returnPath, mime, to);
                answered = replies.values().stream().noneMatch(SmtpMailServer::isOfTheLine);
            } finally {
                server.rest().ended(answered);
            }
            // Another server may have it only if this one cannot have taken it.
            boolean notReached = replies.values().stream()
                    .allMatch(reply -> reply instanceof Reply.Delayed delayed && delayed.forEverybody());
            if (!notReached) return replies;
        }
        return replies;
    }

    private static boolean isOfTheLine(Reply reply) {
        return reply instanceof Reply.Unsure || (reply instanceof Reply.Delayed delayed && delayed.forEverybody());
    }

    private Map<String, Reply> talk(SmtpServer server, @Nullable String returnPath, byte[] mime, List<String> to) {
        var limit = settings.timeLimit().multipliedBy(STEPS).plusMillis(mime.length / BYTES_A_MILLISECOND);
        return Conversation.within(
                limit,
                () -> {
                    try (var line = server.line()) {
                        return handOver(line, returnPath, mime, to);
                    } catch (MessagingException notReached) {
                        return all(to, server.notTaken(notReached));
                    }
                },
                () -> all(to, new Reply.Unsure("The mail server " + server.address() + " did not come to an end.")));
    }

    private static Map<String, Reply> handOver(
            SmtpServer.Line line, @Nullable String returnPath, byte[] mime, List<String> to) throws MessagingException {
        long largest = line.server().largest();
        if (largest > 0 && mime.length > largest)
            return all(
                    to,
                    new Reply.TooLarge(
                            "The message has " + mime.length + " bytes, and the mail server takes " + largest + "."));
        var message = new WatchedMessage(line.session(), mime);
        if (returnPath != null) message.setEnvelopeFrom(returnPath);
        var transport = line.transport();
        try {
            transport.sendMessage(message, addresses(to));
            line.keep();
            return all(to, new Reply.Taken(words(transport)));
        } catch (MessagingException e) {
            int code = transport.getLastReturnCode();
            if (message.hasGoneOut() && (code <= 0 || code == GO_ON)) return all(to, lostAfterTheData(e));
            return code > 0 && e instanceof SendFailedException sent
                    ? perAddress(sent, to, transport)
                    : all(to, line.server().notTaken(e));
        }
    }

    private static Address[] addresses(List<String> to) throws MessagingException {
        var addresses = new Address[to.size()];
        for (int i = 0; i < addresses.length; i++)
            addresses[i] = new InternetAddress(MailDomains.inAscii(to.get(i)), true);
        return addresses;
    }

    /**
     * The library throws this also where all went well, to tell each address's fate. Those it names as sent got the message, with the
     * server's answer to the data; a recipient that was merely accepted before the data failed did not.
     */
    private static Map<String, Reply> perAddress(
            SendFailedException answered, List<String> to, SMTPTransport transport) {
        // What travels is the ASCII form; what is answered for is what was written.
        var written = to.stream().collect(Collectors.toMap(MailDomains::inAscii, each -> each, (first, _) -> first));
        var replies = new LinkedHashMap<String, Reply>();
        for (Address sent : orNone(answered.getValidSentAddresses())) {
            replies.put(written.get(((InternetAddress) sent).getAddress()), new Reply.Taken(words(transport)));
        }
        for (Exception e = answered; e instanceof MessagingException chained; e = chained.getNextException()) {
            if (e instanceof SMTPAddressFailedException failed) {
                replies.putIfAbsent(
                        written.get(failed.getAddress().getAddress()),
                        notTaken(failed.getReturnCode(), ServerWords.line(failed)));
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
        if (ServerWords.isOfItsSize(code, words)) return new Reply.TooLarge(words);
        return code >= 500 ? new Reply.Refused(words) : new Reply.Delayed(words, false);
    }

    private static Reply lostAfterTheData(MessagingException broken) {
        return new Reply.Unsure("The line was lost after the message had gone out: " + ServerWords.line(broken));
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
        return ServerWords.line(transport.getLastServerResponse());
    }
}
