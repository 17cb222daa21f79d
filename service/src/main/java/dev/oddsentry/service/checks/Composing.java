package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.DeliveryDefinition.Packing;
import dev.oddsentry.core.definition.DeliveryDefinition.Recipients;
import dev.oddsentry.core.definition.DeliveryDefinition.Show;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.extract.Template;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.pack.ZipPack;
import dev.oddsentry.service.calendars.Schedules;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.layouts.ExtractRows;
import dev.oddsentry.service.mail.Envelope;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.outbox.NewMessage;
import dev.oddsentry.service.rules.RulePasswords;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes a letter into the bytes of a message: the rows in the mail, and everything open as attached files. */
@Component
class Composing {
    private final MemoryStore memory;
    private final MessageBuilder messages;
    private final Schedules schedules;
    private final Settings settings;
    private final RulePasswords passwords;

    Composing(
            MemoryStore memory,
            MessageBuilder messages,
            Schedules schedules,
            Settings settings,
            RulePasswords passwords) {
        this.memory = memory;
        this.messages = messages;
        this.schedules = schedules;
        this.settings = settings;
        this.passwords = passwords;
    }

    NewMessage message(About about, Reckoned reckoned, Letter letter) {
        var rule = about.rule();
        var rows = reckoned.rows(about.labels());
        var news = rows.extract(newsRows(letter, reckoned, rows));
        var layout = rule.delivery().layout();
        boolean linkOnly = rule.delivery().show() == Show.LINK;
        boolean all = rule.delivery().attaches() || layout.stillOpen();
        var standing = all && !linkOnly ? standing(letter, reckoned, rows) : List.<Extract.Row>of();
        var files = linkOnly ? List.<ExtractFiles.File>of() : files(about, letter, rows, news, standing);
        Instant next = schedules.of(rule).nextAfter(about.moment().slot()).orElse(null);
        String link = settings.baseUrl() + "/rules/" + rule.name();
        int mostRows = layout.rowsInMail() == null ? Announcement.MOST_ROWS : layout.rowsInMail();
        var said = new Announcement(
                title(about, letter),
                about.copy() == null ? null : about.copy().greeting(),
                rule.owner(),
                rule.zone(),
                about.moment().slot(),
                news,
                layout.stillOpen()
                        ? rows.extract(standing).rows().stream().limit(mostRows).toList()
                        : List.of(),
                mostRows,
                linkOnly,
                own(about, letter, news, next, link),
                letter.open(),
                letter.leftOut(),
                because(about),
                notCounted(about, reckoned),
                new Announcement.Habit(
                        rule.memory().mode() == RuleDefinition.Mode.FULL,
                        rule.memory().report(),
                        rule.memory().remindEvery() == null
                                ? null
                                : Patience.text(rule.memory().remindEvery())),
                letter.since(),
                next,
                linkOnly ? null : Charting.of(about, reckoned, letter).orElse(null),
                files.stream().map(ExtractFiles.File::name).toList(),
                rule.delivery().packing() == Packing.ENCRYPTED,
                link);
        var recipients = rule.delivery().recipients();
        var envelope = new Envelope(
                letter.alone()
                        ? Recipients.to(letter.to())
                        : new Recipients(letter.to(), recipients.cc(), recipients.bcc(), recipients.replyTo()),
                rule.owner(),
                rule.name() + ".rules");
        return messages.build(envelope, said, files);
    }

    private static String because(About about) {
        var rule = about.rule();
        // Sentences of conditions are English; in other languages the condition speaks for itself.
        if (rule.delivery().texts().language() != Language.EN)
            return rule.exceptions() == null ? "–" : rule.exceptions();
        return (rule.groups() == null ? "for these rows: " : "")
                + about.labels().exceptions(rule.exceptions());
    }

    private static String notCounted(About about, Reckoned reckoned) {
        var language = about.rule().delivery().texts().language();
        return language == Language.EN
                ? NotCounted.of(reckoned, about.labels(), about.rule().zone())
                : Announcement.unknown(language, reckoned.judge().unknownRows());
    }

    private static Announcement.Own own(About about, Letter letter, Extract news, @Nullable Instant next, String link) {
        var texts = about.rule().delivery().texts();
        if (texts.subject() == null && texts.opening() == null) return Announcement.Own.NONE;
        var copy = about.copy();
        var fields = MailFields.of(
                new MailFields.Facts(
                        about.title(),
                        about.rule().name(),
                        about.rule().owner(),
                        about.moment().slot(),
                        about.rule().zone(),
                        next,
                        letter.split(),
                        copy == null ? null : copy.key(),
                        copy == null ? null : copy.greeting(),
                        because(about),
                        link,
                        letter.open()),
                news);
        return new Announcement.Own(rendered(texts.subject(), fields), rendered(texts.opening(), fields));
    }

    private static @Nullable String rendered(@Nullable String text, Map<String, @Nullable Object> fields) {
        return text == null ? null : Template.of(text).render(fields);
    }

    /** Whose part it is stands in the title, and so in the subject. */
    private static String title(About about, Letter letter) {
        var parts = new ArrayList<String>();
        if (about.copy() != null) parts.add(about.copy().key());
        if (letter.split() != null) parts.add(letter.split());
        return parts.isEmpty() ? about.title() : about.title() + ": " + String.join(", ", parts);
    }

    private List<Extract.Row> newsRows(Letter letter, Reckoned reckoned, ExtractRows rows) {
        var told = letter.told();
        if (told.isEmpty()) return List.of();
        var present = new HashMap<Digest, Sighting>();
        var toldKeys = new HashSet<Digest>();
        told.forEach(item -> toldKeys.add(item.subject().key()));
        reckoned.exceptions().forEach(toldKeys::contains, sighting -> present.put(sighting.key(), sighting));
        var ids = told.stream()
                .map(item -> item.subject().id())
                .filter(Objects::nonNull)
                .toList();
        var lastRows = memory.lastRows(ids);
        var reportedRows = new HashMap<Long, Map<String, @Nullable Object>>();
        letter.parts().forEach(part -> reportedRows.putAll(memory.reportedRows(part.audience(), ids)));
        var news = new ArrayList<Extract.Row>();
        for (var item : told) {
            Sighting sighting = present.get(item.subject().key());
            Map<String, @Nullable Object> was =
                    reportedRows.getOrDefault(item.subject().id(), Map.of());
            news.add(
                    sighting != null
                            ? rows.present(sighting.row(), item.severity(), item.kinds(), was)
                            : rows.past(
                                    item.severity(),
                                    item.kinds(),
                                    lastRows.getOrDefault(item.subject().id(), Map.of())));
        }
        return news;
    }

    /** What was told before and is still there. */
    private static List<Extract.Row> standing(Letter letter, Reckoned reckoned, ExtractRows rows) {
        Set<Digest> toldKeys = new HashSet<>();
        letter.told().forEach(item -> toldKeys.add(item.subject().key()));
        var standing = new ArrayList<Extract.Row>();
        reckoned.exceptions().forEach(sighting -> {
            boolean open = !reckoned.pending().contains(sighting.key()) && !toldKeys.contains(sighting.key());
            if (open && (letter.split() == null || letter.has(reckoned.audienceOf(sighting))))
                standing.add(rows.standing(sighting));
        });
        return standing;
    }

    /** The news first unless the layout has an order of its own, then what was told before and is still there. */
    private List<ExtractFiles.File> files(
            About about, Letter letter, ExtractRows rows, Extract news, List<Extract.Row> standing) {
        var delivery = about.rule().delivery();
        if (!delivery.attaches()) return List.of();
        var everything = new ArrayList<>(news.rows());
        everything.addAll(rows.extract(standing).rows());
        var extract = delivery.layout().sort().isEmpty() ? news.with(everything) : rows.extract(everything);
        var of = new ExtractFiles.About(
                about.rule().name(),
                title(about, letter),
                about.moment().slot(),
                about.rule().zone(),
                letter.split(),
                about.copy() == null ? null : about.copy().key());
        var files = new ArrayList<ExtractFiles.File>();
        for (var wanted : delivery.attachments()) files.add(ExtractFiles.file(wanted, extract, of));
        return packed(about, delivery, of, files);
    }

    /** Files that are too great for a mail go packed, and where that is not enough, stay behind the link. */
    private List<ExtractFiles.File> packed(
            About about, DeliveryDefinition delivery, ExtractFiles.About of, List<ExtractFiles.File> files) {
        boolean great = bytes(files) > settings.mail().mostAttached().toBytes();
        if (delivery.packing() == Packing.NOT && !great) return files;
        char[] password = delivery.packing() == Packing.ENCRYPTED ? password(about) : null;
        try {
            var entries = files.stream()
                    .map(file -> new ZipPack.Entry(file.name(), file.bytes()))
                    .toList();
            byte[] zip = ZipPack.of(entries, about.moment().slot(), password);
            if (zip.length > settings.mail().mostAttached().toBytes()) return List.of();
            return List.of(new ExtractFiles.File(of.name(null) + ".zip", "application/zip", zip));
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    private static long bytes(List<ExtractFiles.File> files) {
        return files.stream().mapToLong(file -> file.bytes().length).sum();
    }

    private char[] password(About about) {
        var of = about.scope();
        return passwords
                .of(of == null ? null : of.ruleId())
                .orElseThrow(() -> new CheckFailureException(
                        "The rule packs its files with a password, and none is kept for it: odd set-file-password "
                                + about.rule().name(),
                        null))
                .toCharArray();
    }
}
