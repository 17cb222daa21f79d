package dev.oddsentry.service.mail;

import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.Sender;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.chart.Chart;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.mail.CollectionMail;
import dev.oddsentry.extracts.mail.HtmlMail;
import dev.oddsentry.extracts.mail.RoundUp;
import dev.oddsentry.extracts.mail.RoundUpMail;
import dev.oddsentry.extracts.mail.Signature;
import dev.oddsentry.extracts.mail.TextMail;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.people.TeamSignature;
import dev.oddsentry.service.people.Teams;
import dev.oddsentry.service.recipients.BlockedRecipients;
import dev.oddsentry.service.recipients.Directory;
import jakarta.activation.DataHandler;
import jakarta.mail.Message;
import jakarta.mail.MessagingException;
import jakarta.mail.Part;
import jakarta.mail.Session;
import jakarta.mail.internet.InternetAddress;
import jakarta.mail.internet.MimeBodyPart;
import jakarta.mail.internet.MimeMessage;
import jakarta.mail.internet.MimeMultipart;
import jakarta.mail.internet.MimeUtility;
import jakarta.mail.util.ByteArrayDataSource;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UnsupportedEncodingException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Date;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Properties;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.web.util.HtmlUtils;

/** The bytes of a message, Message-ID included: text and HTML side by side, the extract attached. */
@Component
public class MessageBuilder {
    private static final String UTF_8 = StandardCharsets.UTF_8.name();

    private final Settings settings;
    private final Clock clock;
    private final Directory directory;
    private final BlockedRecipients reach;
    private final Teams teams;

    MessageBuilder(Settings settings, Clock clock, Directory directory, BlockedRecipients reach, Teams teams) {
        this.teams = teams;
        this.reach = reach;
        this.directory = directory;
        this.settings = settings;
        this.clock = clock;
    }

    public NewMessage build(Envelope envelope, Announcement said, List<ExtractFiles.File> files) {
        return build(envelope, TextMail.subject(said), content(said, teams.signature(envelope.owner()), files));
    }

    /** @param of the round-up's id; null for a preview */
    public NewMessage build(MessageId id, @Nullable UUID of, RoundUpDefinition roundUp, RoundUp said) {
        var signed = teams.signature(roundUp.owner());
        return build(
                new Envelope(
                        id,
                        Recipients.to(roundUp.to()),
                        roundUp.owner(),
                        roundUp.name() + ".round-ups",
                        of,
                        null,
                        new NewMessage.Ways(
                                LateNote.words(said.language(), said.slot(), said.zone()),
                                said.links().leave() != null,
                                said.links().own() == null
                                        ? null
                                        : roundUp.readers().choices(),
                                List.of()),
                        null),
                RoundUpMail.subject(said),
                alternatives(
                        RoundUpMail.text(said, signed.words()),
                        RoundUpMail.html(said, signed.words()),
                        pictures(null, signed)));
    }

    private NewMessage build(Envelope wanted, String subjectWanted, MimeMultipart content) {
        String tries = settings.mail().testAddress();
        // A test installation sends to nobody else.
        var envelope = tries == null
                ? wanted
                : new Envelope(
                        wanted.id(),
                        Recipients.to(List.of(tries)),
                        wanted.owner(),
                        wanted.list(),
                        null,
                        wanted.thread(),
                        new NewMessage.Ways(
                                wanted.ways().late(), false, null, wanted.ways().kept()),
                        wanted.sender());
        // A header is one line, whatever a title says.
        String oneLine = subjectWanted.replaceAll("\\p{Cntrl}+", " ");
        String subject = tries == null ? oneLine : "[Test] " + oneLine;
        String domain = settings.mail().from().substring(settings.mail().from().indexOf('@') + 1);
        String messageId = "<" + envelope.id() + "@" + domain + ">";
        var recipients = envelope.recipients();
        var all = reach.barred(envelope.of());
        var barred = new LinkedHashMap<String, BlockedRecipients.Barred>();
        var to = reached(recipients.to(), all, barred);
        var cc = reached(recipients.cc(), all, barred);
        var bcc = reached(recipients.bcc(), all, barred);
        try {
            var message = new FixedIdMessage(messageId);
            message.setFrom(from(envelope.sender()));
            message.setRecipients(Message.RecipientType.TO, inAscii(to));
            message.setRecipients(Message.RecipientType.CC, inAscii(cc));
            var replyTo = Mailboxes.of(directory.written(
                    recipients.replyTo().isEmpty() ? List.of("team: " + envelope.owner()) : recipients.replyTo()));
            if (!replyTo.isEmpty()) message.setReplyTo(inAscii(replyTo));
            message.setSubject(subject, UTF_8);
            message.setSentDate(Date.from(clock.instant()));
            message.setHeader("Auto-Submitted", "auto-generated");
            message.setHeader("List-Id", "<" + envelope.list() + "." + domain + ">");
            if (envelope.thread() != null) {
                String thread = "<" + envelope.thread() + "@" + domain + ">";
                message.setHeader("In-Reply-To", thread);
                message.setHeader("References", thread);
            }
            message.setContent(content);
            message.saveChanges();
            var bytes = new ByteArrayOutputStream();
            message.writeTo(bytes);
            // A bcc recipient gets it, and is named nowhere in it.
            var everyone = Stream.of(to, cc, bcc)
                    .flatMap(List::stream)
                    .map(InternetAddress::getAddress)
                    .collect(Collectors.toMap(
                            address -> address.toLowerCase(Locale.ROOT),
                            address -> address,
                            (first, _) -> first,
                            LinkedHashMap::new));
            return new NewMessage(
                    envelope.id(),
                    messageId,
                    subject,
                    bytes.toByteArray(),
                    List.copyOf(everyone.values()),
                    barred,
                    envelope.ways());
        } catch (MessagingException | IOException e) {
            throw new IllegalStateException("a message could not be built", e);
        }
    }

    /** The rule's sender, as far as the operator still allows its address. */
    private InternetAddress from(@Nullable Sender sender) throws UnsupportedEncodingException {
        var mail = settings.mail();
        String address = sender == null ? null : sender.address();
        String name = sender == null ? null : sender.name();
        return new InternetAddress(
                address != null && mail.allowsSender(address) ? MailDomains.inAscii(address) : mail.from(),
                name == null ? mail.fromName() : name,
                UTF_8);
    }

    /** As they are in the header of a message. */
    private static InternetAddress[] inAscii(List<InternetAddress> addresses) throws UnsupportedEncodingException {
        var all = new InternetAddress[addresses.size()];
        for (int i = 0; i < all.length; i++) {
            var each = addresses.get(i);
            all[i] = new InternetAddress(MailDomains.inAscii(each.getAddress()), each.getPersonal(), UTF_8);
        }
        return all;
    }

    /** Those of them who get it; the others are noted with why. */
    private List<InternetAddress> reached(
            List<String> written,
            Map<String, BlockedRecipients.Barred> all,
            Map<String, BlockedRecipients.Barred> barred) {
        return Mailboxes.of(directory.written(written)).stream()
                .filter(address -> {
                    var why = all.get(address.getAddress().toLowerCase(Locale.ROOT));
                    if (why != null) barred.put(address.getAddress(), why);
                    return why == null;
                })
                .toList();
    }

    /** A message of plain text, without a rule. */
    public NewMessage plain(String team, List<String> to, Language language, String subject, String text) {
        return plain(Envelope.plain(Recipients.to(to), team, "incident"), language, subject, text);
    }

    /** What a recipient asks a team; the answer goes to {@code from}. */
    public NewMessage question(
            String team, List<String> to, String from, Language language, String subject, String text) {
        var recipients = new Recipients(to, List.of(), List.of(), List.of(from));
        return plain(Envelope.plain(recipients, team, "question"), language, subject, text);
    }

    private NewMessage plain(Envelope envelope, Language language, String subject, String text) {
        var html = "<!doctype html><html lang=\"" + language.code()
                + "\"><body style=\"font-family: sans-serif; color: #22303c\"><div style=\"white-space: pre-wrap\">"
                + HtmlUtils.htmlEscape(text, UTF_8) + "</div></body></html>";
        return build(envelope, subject, alternatives(text, html, List.of()));
    }

    /**
     * A message to one reader, made of others.
     *
     * @param pictures of its HTML
     */
    public NewMessage collection(
            Envelope envelope,
            CollectionMail.Collection said,
            List<MessageParts.Picture> pictures,
            List<ExtractFiles.File> files) {
        return build(
                envelope,
                CollectionMail.subject(said),
                withFiles(alternatives(CollectionMail.text(said), CollectionMail.html(said), pictures), files));
    }

    private static MimeMultipart content(Announcement said, TeamSignature signed, List<ExtractFiles.File> files) {
        var alternatives = alternatives(
                TextMail.render(said, signed.words()),
                HtmlMail.render(said, signed.words()),
                pictures(said.chart(), signed));
        return withFiles(alternatives, files);
    }

    private static MimeMultipart withFiles(MimeMultipart alternatives, List<ExtractFiles.File> files) {
        if (files.isEmpty()) return alternatives;
        try {
            var body = new MimeBodyPart();
            body.setContent(alternatives);
            var mixed = new MimeMultipart(body);
            for (var file : files) {
                var attachment = new MimeBodyPart();
                attachment.setDataHandler(new DataHandler(new ByteArrayDataSource(file.bytes(), file.mediaType())));
                attachment.setFileName(MimeUtility.encodeText(file.name(), UTF_8, null));
                mixed.addBodyPart(attachment);
            }
            return mixed;
        } catch (MessagingException | UnsupportedEncodingException e) {
            throw new IllegalStateException("a message could not be built", e);
        }
    }

    private static List<MessageParts.Picture> pictures(@Nullable Chart chart, TeamSignature signed) {
        var pictures = new ArrayList<MessageParts.Picture>();
        if (chart != null) pictures.add(new MessageParts.Picture(Announcement.CHART, chart.png(), "image/png"));
        if (signed.logo() != null)
            pictures.add(new MessageParts.Picture(
                    Signature.LOGO, signed.logo().bytes(), signed.logo().mediaType()));
        return pictures;
    }

    /** The pictures are part of the HTML and of nothing else. */
    private static MimeMultipart alternatives(String plain, String styled, List<MessageParts.Picture> pictures) {
        try {
            var text = new MimeBodyPart();
            text.setText(plain, UTF_8);
            var html = new MimeBodyPart();
            html.setContent(styled, "text/html; charset=UTF-8");
            if (pictures.isEmpty()) return new MimeMultipart("alternative", text, html);
            var related = new MimeMultipart("related", html);
            for (var each : pictures) {
                var picture = new MimeBodyPart();
                picture.setDataHandler(new DataHandler(new ByteArrayDataSource(each.bytes(), each.mediaType())));
                picture.setContentID("<" + each.name() + ">");
                picture.setDisposition(Part.INLINE);
                related.addBodyPart(picture);
            }
            var styledWithPictures = new MimeBodyPart();
            styledWithPictures.setContent(related);
            return new MimeMultipart("alternative", text, styledWithPictures);
        } catch (MessagingException e) {
            throw new IllegalStateException("a message could not be built", e);
        }
    }

    /** The library would give a message another id each time it is saved. */
    private static final class FixedIdMessage extends MimeMessage {
        private final String messageId;

        FixedIdMessage(String messageId) {
            super(Session.getInstance(new Properties()));
            this.messageId = messageId;
        }

        @Override
        protected void updateMessageID() throws MessagingException {
            setHeader("Message-ID", messageId);
        }
    }
}
