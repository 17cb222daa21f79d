package dev.oddsentry.demo;

import com.icegreen.greenmail.util.GreenMail;
import com.icegreen.greenmail.util.ServerSetup;
import jakarta.mail.Address;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.MimeMessage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Properties;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A mail server that takes everything, on loopback: SMTP to hand over, IMAP to read with any mail program (each address is a user, any
 * password fits). Messages are kept as files, so that a second start of the demo still has them.
 */
final class MailStandIn {
    private final GreenMail server;
    private final Path folder;
    private final Set<String> kept = new LinkedHashSet<>();

    MailStandIn(int smtpPort, int imapPort, Path folder) throws IOException, MessagingException {
        this.folder = Files.createDirectories(folder);
        this.server = new GreenMail(new ServerSetup[] {
            new ServerSetup(smtpPort, "127.0.0.1", ServerSetup.PROTOCOL_SMTP),
            new ServerSetup(imapPort, "127.0.0.1", ServerSetup.PROTOCOL_IMAP)
        });
        server.getUserManager().setAuthRequired(false);
        restore();
        server.start();
        Thread.ofPlatform().daemon().name("keep-mail").start(this::keepAsItComes);
    }

    /** One message as it was taken. */
    record Kept(String name, MimeMessage message) {}

    /** Newest first. */
    List<Kept> messages() throws IOException, MessagingException {
        var messages = new ArrayList<Kept>();
        try (var files = Files.list(folder)) {
            for (Path file : files.filter(MailStandIn::isMessage)
                    .sorted(Comparator.reverseOrder())
                    .toList()) {
                messages.add(new Kept(file.getFileName().toString(), read(file)));
            }
        }
        return messages;
    }

    @Nullable
    Kept message(String name) throws IOException, MessagingException {
        for (Kept each : messages()) if (each.name.equals(name)) return each;
        return null;
    }

    private static boolean isMessage(Path file) {
        return file.toString().endsWith(".eml");
    }

    private static MimeMessage read(Path file) throws IOException, MessagingException {
        return new MimeMessage(
                Session.getInstance(new Properties()), new ByteArrayInputStream(Files.readAllBytes(file)));
    }

    private void restore() throws IOException, MessagingException {
        var oldestFirst = new ArrayList<>(messages());
        oldestFirst.sort(Comparator.comparing(Kept::name));
        for (Kept each : oldestFirst) {
            kept.add(identity(each.message));
            Address[] to = each.message.getAllRecipients();
            if (to == null) continue;
            for (Address address : to) {
                server.setUser(address.toString(), address.toString(), "").deliver(each.message);
            }
        }
    }

    private void keepAsItComes() {
        while (true) {
            try {
                server.waitForIncomingEmail(1_000, server.getReceivedMessages().length + 1);
                for (MimeMessage message : server.getReceivedMessages()) keep(message);
            } catch (IOException | MessagingException e) {
                System.err.println("a message could not be kept: " + e);
            }
        }
    }

    private void keep(MimeMessage message) throws IOException, MessagingException {
        if (!kept.add(identity(message))) return;
        var bytes = new ByteArrayOutputStream();
        message.writeTo(bytes);
        String name = "%013d-%s.eml"
                .formatted(
                        System.currentTimeMillis(), UUID.randomUUID().toString().substring(0, 8));
        Path draft = folder.resolve(name + ".new");
        Files.write(draft, bytes.toByteArray());
        Files.move(draft, folder.resolve(name), StandardCopyOption.ATOMIC_MOVE);
    }

    /** One message to three people is stored thrice by the server and shown once. */
    private static String identity(MimeMessage message) throws MessagingException {
        String[] received = message.getHeader("Message-ID");
        return received == null ? UUID.randomUUID().toString() : Arrays.toString(received);
    }
}
