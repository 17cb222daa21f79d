package dev.oddsentry.bench;

import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.value.Type;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.mail.HtmlMail;
import dev.oddsentry.extracts.mail.TextMail;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.mail.MailLab;
import dev.oddsentry.service.mail.MailServer;
import jakarta.mail.MessagingException;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import java.io.BufferedReader;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Properties;
import java.util.Set;
import java.util.UUID;

/**
 * Hands messages of about 10 kB over to a mail server on loopback that takes everything, one after the other on one line, beside rendering and building
 * the same messages in memory.
 */
public final class Mails {
    private static final int MESSAGES = Integer.getInteger("odd.messages", 2_000);
    private static final int ROUNDS = Integer.getInteger("odd.rounds", 7);
    private static final int ROWS = 16;

    private Mails() {}

    public static void main(String[] arguments) throws IOException, MessagingException {
        var sink = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
        Thread.ofPlatform().daemon().start(() -> take(sink));
        var server = MailLab.at(sink.getLocalPort());
        var messages = build();
        System.out.printf(Locale.ROOT, "%d messages of %d bytes%n", MESSAGES, messages.getFirst().length);
        handOver(server, messages);
        long[] over = new long[ROUNDS];
        long[] built = new long[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            long began = System.nanoTime();
            messages = build();
            built[i] = System.nanoTime() - began;
            began = System.nanoTime();
            handOver(server, messages);
            over[i] = System.nanoTime() - began;
        }
        Arrays.sort(over);
        Arrays.sort(built);
        double handedOver = MESSAGES * 1e9 / over[ROUNDS / 2];
        double inMemory = MESSAGES * 1e9 / built[ROUNDS / 2];
        System.out.printf(
                Locale.ROOT,
                "handed over: %.0f a second; rendered and built in memory: %.0f a second; %.2f x%n",
                handedOver,
                inMemory,
                handedOver / inMemory);
    }

    private static void handOver(MailServer server, List<byte[]> messages) {
        for (byte[] message : messages) {
            var reply = server.handOver(
                            new MessageId(UUID.randomUUID()), message, List.of("per.aune@skerryline.example"))
                    .get("per.aune@skerryline.example");
            if (!(reply instanceof MailServer.Reply.Taken)) throw new IllegalStateException(String.valueOf(reply));
        }
    }

    private static List<byte[]> build() throws MessagingException, IOException {
        var messages = new ArrayList<byte[]>();
        for (int i = 0; i < MESSAGES; i++) messages.add(mime(said(i)));
        return messages;
    }

    private static byte[] mime(Announcement said) throws MessagingException, IOException {
        var text = new MimeBodyPart();
        text.setText(TextMail.render(said), "UTF-8");
        var html = new MimeBodyPart();
        html.setContent(HtmlMail.render(said), "text/html; charset=UTF-8");
        var message = new MimeMessage(Session.getInstance(new Properties()));
        message.setFrom(new InternetAddress("odd-sentry@skerryline.example"));
        message.setRecipients(MimeMessage.RecipientType.TO, "per.aune@skerryline.example");
        message.setSubject(TextMail.subject(said), "UTF-8");
        message.setContent(new MimeMultipart("alternative", text, html));
        message.saveChanges();
        var bytes = new ByteArrayOutputStream(1 << 14);
        message.writeTo(bytes);
        return bytes.toByteArray();
    }

    private static Announcement said(int number) {
        var columns = List.of(
                Extract.Column.of("sailing", "Sailing", null, Type.TEXT),
                Extract.Column.of("route", "Route", null, Type.TEXT),
                Extract.Column.of("delay_min", "Late by", "min", Type.NUMBER));
        var rows = new ArrayList<Extract.Row>();
        for (int i = 0; i < ROWS; i++)
            rows.add(new Extract.Row(
                    i % 5 == 0 ? Severity.CRITICAL : Severity.WARNING,
                    Set.of(UpdateKind.NEW),
                    List.of(
                            Extract.Cell.plain("SK-" + (number + i)),
                            Extract.Cell.plain("Måkehamn – Skjærnes"),
                            new Extract.Cell((long) (20 + i), true, null))));
        var news = new Extract(
                ZoneId.of("Europe/Oslo"), Language.EN, columns, Extract.Arrangement.USUAL, List.copyOf(rows));
        return new Announcement(
                "Late sailings without a reason",
                null,
                "Traffic reporting",
                ZoneId.of("Europe/Oslo"),
                Instant.parse("2026-11-24T04:40:00Z"),
                news,
                List.of(),
                List.of(),
                Announcement.MOST_ROWS,
                false,
                Announcement.Own.NONE,
                ROWS,
                0,
                "rows match the condition: late by more than 15 min",
                "",
                new Announcement.Habit(Announcement.Tells.UPDATES, false, Set.of(UpdateKind.NEW), null),
                null,
                Instant.parse("2026-11-25T04:40:00Z"),
                null,
                List.of(),
                Announcement.Files.NONE,
                List.of(),
                Announcement.Links.to("http://127.0.0.1:8480/rules/late-sailings"));
    }

    /** One conversation after the other: it says yes to everything, and keeps nothing. */
    private static void take(ServerSocket sink) {
        while (true) {
            try (var line = sink.accept()) {
                line.setTcpNoDelay(true);
                var in = new BufferedReader(
                        new InputStreamReader(line.getInputStream(), StandardCharsets.ISO_8859_1), 1 << 16);
                var out = line.getOutputStream();
                say(out, "220 sink");
                for (String said = in.readLine(); said != null; said = in.readLine()) {
                    String command =
                            said.substring(0, Math.min(4, said.length())).toUpperCase(Locale.ROOT);
                    if (command.equals("DATA")) {
                        say(out, "354 go on");
                        while (!".".equals(in.readLine())) continue;
                    }
                    say(out, command.equals("QUIT") ? "221 bye" : "250 ok");
                }
            } catch (IOException gone) {
                // The next one may come.
            }
        }
    }

    private static void say(OutputStream out, String words) throws IOException {
        out.write((words + "\r\n").getBytes(StandardCharsets.US_ASCII));
        out.flush();
    }
}
