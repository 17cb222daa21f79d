package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.DeliveryDefinition.Attachment;
import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.definition.DeliveryDefinition.Packing;
import dev.oddsentry.core.definition.DeliveryDefinition.Show;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.extracts.pack.ZipPack;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import dev.oddsentry.service.layouts.ExtractFiles;
import dev.oddsentry.service.layouts.ExtractRows;
import dev.oddsentry.service.mail.MailServer;
import dev.oddsentry.service.rules.RulePasswords;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes everything open into files: those that go with the mail, and those that stay behind log-in. */
@Component
class AttachmentWriter {
    /** Text and HTML, with a chart, and the heading. */
    private static final long FOR_THE_TEXTS = 300_000;

    private static final long HEADING_OF_A_FILE = 400;

    private final Settings settings;
    private final RulePasswords passwords;
    private final MailServer server;

    AttachmentWriter(Settings settings, RulePasswords passwords, MailServer server) {
        this.server = server;
        this.settings = settings;
        this.passwords = passwords;
    }

    /**
     * @param files that go with the mail, packed if need be
     * @param kept that do not
     * @param ofOthers names of those with rows of other queries
     * @param tooGreat names of those that would go with it
     * @param instead names of those that are too long for the format that was asked for
     */
    record Attached(
            List<ExtractFiles.File> files,
            List<ExtractFiles.File> kept,
            Set<String> ofOthers,
            List<String> tooGreat,
            List<String> instead) {
        private List<String> names(List<ExtractFiles.File> of, boolean others) {
            return of.stream()
                    .map(ExtractFiles.File::name)
                    .filter(name -> ofOthers.contains(name) == others)
                    .toList();
        }

        Announcement.Files said(DeliveryDefinition delivery) {
            return new Announcement.Files(
                    names(files, false),
                    names(files, true),
                    delivery.packing() == Packing.ENCRYPTED,
                    tooGreat,
                    instead);
        }
    }

    /** Rows of another query. */
    record Other(DeliveryDefinition.AlsoSent asked, QueryDefinition query, Extract rows) {}

    /** Updates first unless the layout has an order of its own, then findings reported earlier that are still open. */
    Attached files(
            MessageContext context,
            String title,
            @Nullable String split,
            ExtractRows rows,
            Extract news,
            List<Extract.Row> standing,
            List<Other> others) {
        var delivery = context.rule().delivery();
        boolean linkOnly = delivery.show() == Show.LINK;
        boolean anything = delivery.attaches()
                || linkOnly
                || others.stream()
                        .anyMatch(other -> !other.asked().attachments().isEmpty());
        if (!anything) return new Attached(List.of(), List.of(), Set.of(), List.of(), List.of());
        var everything = new ArrayList<>(news.rows());
        everything.addAll(rows.extract(standing).rows());
        var extract = delivery.layout().sort().isEmpty() ? news.with(everything) : rows.extract(everything);
        var of = new ExtractFiles.About(
                context.rule().name(),
                title,
                context.moment().slot(),
                context.rule().zone(),
                split,
                context.copy() == null ? null : context.copy().key());
        var files = new ArrayList<ExtractFiles.File>();
        var instead = new ArrayList<String>();
        for (var wanted : delivery.attachments()) add(wanted, extract, of, files, instead);
        int own = files.size();
        for (var other : others)
            for (var wanted : other.asked().attachments())
                add(wanted, other.rows(), of.with(other.query()), files, instead);
        var ofOthers = files.stream().skip(own).map(ExtractFiles.File::name).collect(Collectors.toSet());
        if (linkOnly) {
            files.addFirst(ExtractFiles.file(Attachment.of(Format.HTML), extract, of));
            return new Attached(List.of(), files, Set.of(), List.of(), List.of());
        }
        return packed(context, delivery, of, files, ofOthers, instead);
    }

    private static void add(
            Attachment wanted,
            Extract extract,
            ExtractFiles.About of,
            List<ExtractFiles.File> files,
            List<String> instead) {
        var file = ExtractFiles.file(wanted, extract, of);
        files.add(file);
        if (!file.name().endsWith("." + wanted.format().code())) instead.add(file.name());
    }

    /** For files as they are sent: what the operator allows, or less if the mail server has announced a lower limit. */
    private long mostBytes() {
        long allowed = settings.mail().mostAttached().toBytes();
        var largest = server.largest();
        return largest.isEmpty() ? allowed : Math.min(allowed, Math.max(0, largest.getAsLong() - FOR_THE_TEXTS));
    }

    /** In Base64, in lines of 76 characters. */
    private static long asSent(byte[] bytes) {
        long characters = (bytes.length + 2L) / 3 * 4;
        return characters + characters / 76 * 2 + HEADING_OF_A_FILE;
    }

    /** Files that are too great for a mail go packed, and where that is not enough, stay behind the link. */
    private Attached packed(
            MessageContext context,
            DeliveryDefinition delivery,
            ExtractFiles.About of,
            List<ExtractFiles.File> files,
            Set<String> ofOthers,
            List<String> instead) {
        long most = mostBytes();
        boolean great = files.stream().mapToLong(file -> asSent(file.bytes())).sum() > most;
        if (delivery.packing() == Packing.NOT && !great)
            return new Attached(files, List.of(), ofOthers, List.of(), instead);
        char[] password = delivery.packing() == Packing.ENCRYPTED ? password(context) : null;
        try {
            var entries = files.stream()
                    .map(file -> new ZipPack.Entry(file.name(), file.bytes()))
                    .toList();
            byte[] zip = ZipPack.of(entries, context.moment().slot(), password);
            var packed = List.of(new ExtractFiles.File(of.name(null) + ".zip", "application/zip", zip));
            if (asSent(zip) <= most) return new Attached(packed, List.of(), Set.of(), List.of(), instead);
            var names = files.stream().map(ExtractFiles.File::name).toList();
            return new Attached(List.of(), password == null ? files : packed, Set.of(), names, instead);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    private char[] password(MessageContext context) {
        var of = context.scope();
        return passwords
                .of(of == null ? null : of.ruleId())
                .orElseThrow(() -> new CheckFailureException(
                        FailureKind.FILE_PASSWORD,
                        "The rule packs its files with a password, and none is kept for it: odd set-file-password "
                                + context.rule().name()))
                .toCharArray();
    }
}
