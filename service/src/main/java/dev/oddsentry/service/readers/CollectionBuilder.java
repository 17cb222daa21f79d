package dev.oddsentry.service.readers;

import static dev.oddsentry.service.db.generated.Tables.MESSAGE_RECIPIENT;

import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;
import dev.oddsentry.core.definition.RoundUpDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.extracts.mail.CollectionMail;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.db.generated.tables.records.MessageRecord;
import dev.oddsentry.service.ids.MessageId;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.mail.Envelope;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.mail.MessageParts;
import dev.oddsentry.service.mail.NewMessage;
import dev.oddsentry.service.mail.ReaderLinks;
import dev.oddsentry.service.recipients.RecipientLanguages;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import org.jooq.DSLContext;
import org.springframework.stereotype.Component;
import org.springframework.web.util.HtmlUtils;

/** Puts messages to one recipient together: as many in one mail as mail programs show and mail servers take. */
@Component
class CollectionBuilder {
    /** Some mail programs cut off what is longer. */
    private static final int MOST_HTML = 90_000;

    private final DSLContext db;
    private final MessageBuilder messages;
    private final ReaderLinks links;
    private final RecipientLanguages languages;
    private final Settings settings;

    CollectionBuilder(
            DSLContext db,
            MessageBuilder messages,
            ReaderLinks links,
            RecipientLanguages languages,
            Settings settings) {
        this.db = db;
        this.messages = messages;
        this.links = links;
        this.languages = languages;
        this.settings = settings;
    }

    /** In which zone and language times are written, unless the recipient has set a language. */
    record Of(ZoneId zone, Language language) {
        static Of of(RuleDefinition rule) {
            return new Of(rule.zone(), rule.delivery().texts().language());
        }

        static Of of(RoundUpDefinition roundUp) {
            return new Of(roundUp.zone(), roundUp.language());
        }
    }

    /** A mail, and the messages in it. */
    record Built(NewMessage message, List<MessageRecord> of) {}

    private record Opened(MessageRecord message, MessageParts.Said said, String html, List<ExtractFiles.File> files) {
        static Opened of(MessageRecord message) {
            var said = MessageParts.said(message.getMime());
            return new Opened(
                    message,
                    said,
                    ReaderLinks.withoutAnchors(CollectionMail.said(said.html())),
                    MessageParts.files(message.getMime()));
        }

        long fileBytes() {
            return files.stream().mapToLong(file -> file.bytes().length).sum();
        }
    }

    List<Built> build(
            String address,
            CollectionMail.Reason reason,
            Of of,
            List<String> owners,
            List<MessageRecord> collected,
            Instant now) {
        var parts = parts(collected.stream().map(Opened::of).toList());
        var built = new ArrayList<Built>();
        for (var part : parts) built.add(built(address, reason, of, owners, part, built.size() + 1, parts.size(), now));
        return built;
    }

    private List<List<Opened>> parts(List<Opened> all) {
        var parts = new ArrayList<List<Opened>>();
        long html = 0;
        long files = 0;
        for (var each : all) {
            html += each.html().length();
            files += each.fileBytes();
            // In Base64 files are a third longer.
            boolean full = html > MOST_HTML
                    || files * 4 / 3 > settings.mail().mostAttached().toBytes();
            if (parts.isEmpty() || full) {
                parts.add(new ArrayList<>());
                html = each.html().length();
                files = each.fileBytes();
            }
            parts.getLast().add(each);
        }
        return parts;
    }

    private Built built(
            String address,
            CollectionMail.Reason reason,
            Of of,
            List<String> owners,
            List<Opened> part,
            int number,
            int parts,
            Instant now) {
        var id = MessageId.random();
        var items = new ArrayList<CollectionMail.Item>();
        var pictures = new ArrayList<MessageParts.Picture>();
        var files = new ArrayList<ExtractFiles.File>();
        var names = new HashSet<String>();
        for (var each : part) {
            String html = each.html();
            // Each message's pictures keep their places among those of the others.
            for (var picture : each.said().pictures()) {
                String name = picture.name() + "-" + (pictures.size() + 1);
                html = html.replace("\"cid:" + picture.name() + "\"", "\"cid:" + name + "\"");
                pictures.add(new MessageParts.Picture(name, picture.bytes(), picture.mediaType()));
            }
            String text = ReaderLinks.withoutLinks(each.said().text());
            for (var file : each.files()) {
                var named = file;
                for (int i = 2; !names.add(named.name()); i++) named = file.numbered(i);
                files.add(named);
                text = text.replace(file.name(), named.name());
                html = html.replace(escaped(file.name()), escaped(named.name()));
            }
            items.add(new CollectionMail.Item(
                    each.message().getSubject(), each.message().getSlot(), text, html));
        }
        var said = new CollectionMail.Collection(
                languages.byAddress().getOrDefault(address, of.language()),
                of.zone(),
                now,
                reason,
                number,
                parts,
                items,
                links.stored(ReaderLinks.Purpose.YOUR_MAIL, id));
        var envelope = new Envelope(
                id,
                new Recipients(
                        List.of(asWritten(address, part)),
                        List.of(),
                        List.of(),
                        owners.stream().map(owner -> "team: " + owner).toList()),
                owners.getFirst(),
                "collections",
                null,
                null,
                new NewMessage.Ways(null, false, List.of(), List.of()),
                null);
        return new Built(
                messages.collection(envelope, said, pictures, files),
                part.stream().map(Opened::message).toList());
    }

    private static String escaped(String text) {
        return HtmlUtils.htmlEscape(text, StandardCharsets.UTF_8.name());
    }

    /** Case may matter to its server. */
    private String asWritten(String address, List<Opened> part) {
        return db.select(MESSAGE_RECIPIENT.ADDRESS)
                .from(MESSAGE_RECIPIENT)
                .where(
                        OwnMail.waitFor(address),
                        MESSAGE_RECIPIENT.MESSAGE_ID.eq(
                                part.getFirst().message().getId()))
                .limit(1)
                .fetchOptional(MESSAGE_RECIPIENT.ADDRESS)
                .orElse(address);
    }
}
