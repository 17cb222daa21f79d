package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import jakarta.mail.AuthenticationFailedException;
import jakarta.mail.MessagingException;
import java.net.ConnectException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.security.cert.CertPathBuilderException;
import java.security.cert.CertificateException;
import java.security.cert.CertificateExpiredException;
import java.security.cert.CertificateNotYetValidException;
import java.util.List;
import java.util.Optional;
import javax.net.ssl.SSLException;
import org.eclipse.angus.mail.smtp.SMTPTransport;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/** Tries each mail server as far as a recipient, without sending anything, and says in plain words what is wrong. */
@Component
public class MailTest {
    private static final int OK = 250;

    private final List<SmtpServer> servers;
    private final Settings.Mail settings;

    @Autowired
    MailTest(SmtpMailServer servers, Settings settings) {
        this(servers.servers(), settings.mail());
    }

    MailTest(List<SmtpServer> servers, Settings.Mail settings) {
        this.servers = servers;
        this.settings = settings;
    }

    public record MailServerTest(String server, boolean reached, String detail) {}

    /** @param to whom the servers are asked about; nothing is sent there */
    public List<MailServerTest> tried(String to) {
        return servers.stream()
                .map(server -> Conversation.within(
                        settings.timeLimit().multipliedBy(2),
                        () -> tried(server, to),
                        () -> new MailServerTest(server.address(), false, "It did not come to an end.")))
                .toList();
    }

    private MailServerTest tried(SmtpServer server, String to) {
        try {
            var transport = server.connect();
            try {
                Optional<String> refused = refusal(transport, to);
                String how = switch (settings.security()) {
                    case NONE -> "without TLS";
                    case STARTTLS -> "with TLS (STARTTLS)";
                    case TLS -> "with TLS";
                };
                String as = settings.username() == null ? "" : ", logged in as " + settings.username();
                return refused.map(words -> new MailServerTest(server.address(), false, words))
                        .orElseGet(() -> new MailServerTest(
                                server.address(), true, "It answers " + how + as + ", and takes mail to " + to + "."));
            } finally {
                transport.close();
            }
        } catch (MessagingException e) {
            return new MailServerTest(server.address(), false, words(e, server));
        }
    }

    /** Begins a message and goes as far as its recipient: what strict servers refuse shows only there. */
    private Optional<String> refusal(SMTPTransport transport, String to) throws MessagingException {
        int sender = transport.simpleCommand("MAIL FROM:<" + settings.from() + ">");
        if (sender != OK) return Optional.of("It refuses the sender " + settings.from() + ": " + said(transport));
        int recipient = transport.simpleCommand("RCPT TO:<" + MailDomains.inAscii(to) + ">");
        String words = said(transport);
        transport.simpleCommand("RSET");
        // 251 says that it forwards, 252 that it does not check.
        return recipient >= OK && recipient < 300
                ? Optional.empty()
                : Optional.of("It refuses mail to " + to + ": " + words);
    }

    private static String said(SMTPTransport transport) {
        return ServerWords.line(transport.getLastServerResponse());
    }

    /** The first cause that says something to a person. */
    private String words(MessagingException failed, SmtpServer server) {
        if (failed instanceof AuthenticationFailedException)
            return "It does not accept the log-in as " + settings.username() + ": " + ServerWords.line(failed);
        for (Throwable cause = failed; cause != null; cause = cause.getCause()) {
            switch (cause) {
                case UnknownHostException _ -> {
                    return "There is no host of that name.";
                }
                case ConnectException _ -> {
                    return "Nobody listens there.";
                }
                case SocketTimeoutException _ -> {
                    return "It does not answer within " + settings.timeLimit().toSeconds() + " s.";
                }
                case CertPathBuilderException _ -> {
                    return "Its certificate is of an authority that is not trusted here; name the authority's certificates with oddsentry.mail.ca-file.";
                }
                case CertificateExpiredException wrong -> {
                    return "Its certificate has expired: " + ServerWords.line(wrong);
                }
                case CertificateNotYetValidException wrong -> {
                    return "Its certificate is not valid yet: " + ServerWords.line(wrong);
                }
                case CertificateException wrong
                when wrong.getCause() == null -> {
                    return "Its certificate is not for " + server.address().replaceFirst(":.*", "") + ": "
                            + ServerWords.line(wrong);
                }
                case SSLException wrong
                when wrong.getCause() == null -> {
                    return "It speaks no TLS there: " + ServerWords.line(wrong)
                            + "; is the port right, and oddsentry.mail.security?";
                }
                default -> {}
            }
        }
        String line = ServerWords.line(failed);
        return line.contains("STARTTLS is required")
                ? "It offers no STARTTLS; set oddsentry.mail.security to tls or none."
                : line;
    }
}
