package dev.oddsentry.service.mail;

import dev.oddsentry.service.config.ServerRest;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.config.Settings.MailLogIn;
import dev.oddsentry.service.config.Settings.MailSecurity;
import dev.oddsentry.service.mail.MailServer.Reply;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import java.io.IOException;
import java.nio.file.Files;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Properties;
import org.apache.commons.pool2.BasePooledObjectFactory;
import org.apache.commons.pool2.PooledObject;
import org.apache.commons.pool2.impl.DefaultPooledObject;
import org.apache.commons.pool2.impl.GenericObjectPool;
import org.apache.commons.pool2.impl.GenericObjectPoolConfig;
import org.eclipse.angus.mail.smtp.SMTPTransport;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** One mail server, and the lines to it that are open. A line that took a message is used for the next one, if that comes soon. */
final class SmtpServer {
    private static final Duration LONGEST_REST = Duration.ofMinutes(5);
    private static final Logger LOG = LoggerFactory.getLogger(SmtpServer.class);
    private static final int MOST_KEPT = 4;
    private static final Duration KEPT_FOR = Duration.ofSeconds(10);

    private final Settings.Mail settings;
    private final String host;
    private final int port;
    private final Session session;
    private final ServerRest rest;
    private volatile long largest;
    private volatile @Nullable String lastFailure;
    private final GenericObjectPool<SMTPTransport> lines;

    private SmtpServer(Settings.Mail settings, String host, int port, int mostAtOnce) {
        this.rest = new ServerRest(settings.firstWait(), LONGEST_REST, mostAtOnce, System::nanoTime);
        this.settings = settings;
        this.host = host;
        this.port = port;
        this.session = Session.getInstance(properties());
        this.lines = new GenericObjectPool<>(new Lines(), keptForAWhile());
    }

    /** How many lines there are at once is limited by those who hand over. */
    private static GenericObjectPoolConfig<SMTPTransport> keptForAWhile() {
        var config = new GenericObjectPoolConfig<SMTPTransport>();
        config.setMaxTotal(-1);
        config.setMaxIdle(MOST_KEPT);
        config.setTestOnBorrow(true);
        config.setMinEvictableIdleDuration(KEPT_FOR);
        config.setTimeBetweenEvictionRuns(KEPT_FOR);
        config.setJmxEnabled(false);
        return config;
    }

    /** @param workers how many messages are handed over at once */
    static List<SmtpServer> inOrder(Settings.Mail settings, int workers) {
        var servers = new ArrayList<SmtpServer>();
        // While one of several hangs, the others still have workers.
        int each = settings.others().isEmpty() ? workers : Math.max(1, workers / 2);
        servers.add(new SmtpServer(settings, settings.host(), settings.port(), each));
        for (String other : settings.others()) {
            int colon = other.lastIndexOf(':');
            servers.add(new SmtpServer(
                    settings, other.substring(0, colon), Integer.parseInt(other.substring(colon + 1)), each));
        }
        return List.copyOf(servers);
    }

    private Properties properties() {
        String limit = String.valueOf(settings.timeLimit().toMillis());
        var properties = new Properties();
        properties.put("mail.smtp.host", host);
        properties.put("mail.smtp.port", String.valueOf(port));
        properties.put("mail.smtp.connectiontimeout", limit);
        properties.put("mail.smtp.timeout", limit);
        properties.put("mail.smtp.writetimeout", limit);
        properties.put("mail.smtp.sendpartial", "true");
        properties.put("mail.smtp.reportsuccess", "true");
        properties.put("mail.smtp.from", settings.from());
        properties.put("mail.smtp.localhost", HeloName.of(settings.heloName()));
        // Without it each message waits some 45 ms for a delayed acknowledgement.
        properties.put("mail.smtp.socketFactory", new NoDelaySocketFactory());
        if (settings.security() != MailSecurity.NONE) {
            properties.put("mail.smtp.ssl.socketFactory", TrustedCertificates.socketFactory(settings.caFile()));
            properties.put("mail.smtp.ssl.checkserveridentity", "true");
            properties.put("mail.smtp.ssl.protocols", "TLSv1.3 TLSv1.2");
        }
        if (settings.security() == MailSecurity.STARTTLS) {
            properties.put("mail.smtp.starttls.enable", "true");
            properties.put("mail.smtp.starttls.required", "true");
        }
        if (settings.security() == MailSecurity.TLS) properties.put("mail.smtp.ssl.enable", "true");
        if (settings.username() != null) {
            properties.put("mail.smtp.auth", "true");
            if (settings.logIn() == MailLogIn.TOKEN) properties.put("mail.smtp.auth.mechanisms", "XOAUTH2");
        }
        return properties;
    }

    String address() {
        return host + ":" + port;
    }

    /** A line for one message: one that is open and answers, or a new one. */
    Line line() throws MessagingException {
        try {
            return new Line(lines.borrowObject());
        } catch (MessagingException | RuntimeException failed) {
            throw failed;
        } catch (Exception unexpected) {
            throw new MessagingException("no line to " + address(), unexpected);
        }
    }

    SMTPTransport connect() throws MessagingException {
        var transport = (SMTPTransport) session.getTransport("smtp");
        try {
            if (settings.username() == null) transport.connect();
            else transport.connect(settings.username(), secret());
            largest = announcedSize(transport);
            return transport;
        } catch (MessagingException failed) {
            close(transport);
            throw failed;
        }
    }

    private @Nullable String secret() throws MessagingException {
        try {
            return settings.secretFile() == null
                    ? settings.secret()
                    : Files.readString(settings.secretFile()).strip();
        } catch (IOException e) {
            throw new MessagingException("the file " + settings.secretFile() + " cannot be read", e);
        }
    }

    /** The limit of RFC 1870; 0 where the server has none or does not say. */
    private static long announcedSize(SMTPTransport transport) {
        String said = transport.getExtensionParameter("SIZE");
        return said != null && said.strip().matches("\\d{1,18}") ? Long.parseLong(said.strip()) : 0;
    }

    ServerRest rest() {
        return rest;
    }

    /** The largest message it takes, as it last said; 0 if it has not. */
    long largest() {
        return largest;
    }

    Reply notTaken(MessagingException broken) {
        lastFailure = "The mail server " + address() + " did not take it: " + ServerWords.line(broken);
        return new Reply.Delayed(lastFailure, true);
    }

    /** Not tried, since it is left alone for a while or has enough conversations. */
    Reply notTried() {
        String last = lastFailure;
        return new Reply.Delayed(
                last == null ? "The mail server " + address() + " has enough to do for now." : last, true);
    }

    void close() {
        lines.close();
    }

    /** What the server said of the message counts; that the line breaks after it changes nothing. */
    private static void close(SMTPTransport transport) {
        try {
            transport.close();
        } catch (MessagingException gone) {
            LOG.debug("the line to the mail server broke while it was closed", gone);
        }
    }

    /** Closed at its end unless it is kept for the next message. */
    final class Line implements AutoCloseable {
        private final SMTPTransport transport;
        private boolean keep;

        private Line(SMTPTransport transport) {
            this.transport = transport;
        }

        SMTPTransport transport() {
            return transport;
        }

        Session session() {
            return session;
        }

        SmtpServer server() {
            return SmtpServer.this;
        }

        void keep() {
            keep = true;
        }

        @Override
        public void close() {
            if (keep) lines.returnObject(transport);
            else forget();
        }

        private void forget() {
            try {
                lines.invalidateObject(transport);
            } catch (Exception unexpected) {
                throw new IllegalStateException("a line could not be closed", unexpected);
            }
        }
    }

    private final class Lines extends BasePooledObjectFactory<SMTPTransport> {
        @Override
        public SMTPTransport create() throws MessagingException {
            return connect();
        }

        @Override
        public PooledObject<SMTPTransport> wrap(SMTPTransport transport) {
            return new DefaultPooledObject<>(transport);
        }

        @Override
        public boolean validateObject(PooledObject<SMTPTransport> line) {
            return line.getObject().isConnected();
        }

        @Override
        public void destroyObject(PooledObject<SMTPTransport> line) {
            SmtpServer.close(line.getObject());
        }
    }
}
