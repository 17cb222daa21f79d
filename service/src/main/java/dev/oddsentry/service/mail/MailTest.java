package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.Settings;
import jakarta.mail.AuthenticationFailedException;
import jakarta.mail.MessagingException;
import java.net.ConnectException;
import java.net.SocketTimeoutException;
import java.net.UnknownHostException;
import java.security.cert.CertPathBuilderException;
import java.security.cert.CertificateException;
import java.util.List;
import javax.net.ssl.SSLException;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.stereotype.Component;

/** Tries each mail server without sending anything, and says in plain words what is wrong. */
@Component
class MailTest {
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

    record Tried(String server, boolean reached, String words) {}

    List<Tried> tried() {
        return servers.stream().map(this::tried).toList();
    }

    private Tried tried(SmtpServer server) {
        try {
            var transport = server.connect();
            boolean answers = transport.isConnected();
            transport.close();
            String how = switch (settings.security()) {
                case NONE -> "without TLS";
                case STARTTLS -> "with TLS (STARTTLS)";
                case TLS -> "with TLS";
            };
            String as = settings.username() == null ? "" : ", logged in as " + settings.username();
            return new Tried(server.address(), answers, "It answers " + how + as + ".");
        } catch (MessagingException e) {
            return new Tried(server.address(), false, words(e, server));
        }
    }

    /** The first cause that says something to a person. */
    private String words(MessagingException failed, SmtpServer server) {
        if (failed instanceof AuthenticationFailedException)
            return "It does not accept the log-in as " + settings.username() + ": " + SmtpMailServer.line(failed);
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
                case CertificateException wrong
                when wrong.getCause() == null -> {
                    return "Its certificate is not for " + server.address().replaceFirst(":.*", "") + ": "
                            + SmtpMailServer.line(wrong);
                }
                case SSLException wrong
                when wrong.getCause() == null -> {
                    return "It speaks no TLS there: " + SmtpMailServer.line(wrong)
                            + "; is the port right, and oddsentry.mail.security?";
                }
                default -> {}
            }
        }
        String line = SmtpMailServer.line(failed);
        return line.contains("STARTTLS is required")
                ? "It offers no STARTTLS; set oddsentry.mail.security to tls or none."
                : line;
    }
}
