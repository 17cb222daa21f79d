package dev.oddsentry.service.messages;

import dev.oddsentry.core.definition.Attachment;
import dev.oddsentry.core.definition.DeliveryDefinition;
import dev.oddsentry.core.definition.DeliveryDefinition.Format;
import dev.oddsentry.core.definition.DeliveryDefinition.Packing;
import dev.oddsentry.core.definition.DeliveryDefinition.Show;
import dev.oddsentry.core.definition.QueryDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.extract.FileRows;
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
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes the rows of a message into files: those that go with the mail, and those that stay behind log-in. */
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
     * @param rows by name of a file, which rows it holds; several kinds are in an archive that is not among them
     * @param kept that do not
     * @param ofOthers names of those with rows of other queries
     * @param tooGreat names of those that would go with it
     * @param byLink names of those that the recipients want behind the link
     * @param instead names of those that are too long for the format that was asked for
     */
    record Attached(
            List<ExtractFiles.File> files,
            List<ExtractFiles.File> kept,
            Map<String, FileRows> rows,
            Set<String> ofOthers,
            List<String> tooGreat,
            List<String> byLink,
            List<String> instead) {
        static final Attached NOTHING = kept(List.of());

        static Attached kept(List<ExtractFiles.File> files) {
            return new Attached(List.of(), files, Map.of(), Set.of(), List.of(), List.of(), List.of());
        }

        private List<String> names(boolean others) {
            return files.stream()
                    .map(ExtractFiles.File::name)
                    .filter(name -> ofOthers.contains(name) == others)
                    .toList();
        }

        Announcement.Files said(DeliveryDefinition delivery) {
            return new Announcement.Files(
                    names(false).stream()
                            .map(name -> new Announcement.Files.Attached(name, rows.get(name)))
                            .toList(),
                    names(true),
                    delivery.packing() == Packing.ENCRYPTED,
                    tooGreat,
                    byLink,
                    instead);
        }
    }

    /**
     * The rows of a message.
     *
     * @param updates those that it reports
     * @param standing reported earlier and still open
     * @param whole all of the query, where the rule shows them
     * @param byLink whether files stay behind the link, since the recipients chose so
     */
    record ReportRows(Extract updates, List<Extract.Row> standing, List<Extract.Row> whole, boolean byLink) {}

    /** Rows of another query. */
    record Other(DeliveryDefinition.AlsoSent asked, QueryDefinition query, Extract rows) {}

    /** The files that the rule asks for, each with its rows, and those with rows of other queries. */
    Attached files(
            MessageContext context,
            String title,
            @Nullable String split,
            ExtractRows rows,
            ReportRows report,
            List<Other> others) {
        var delivery = context.rule().delivery();
        boolean linkOnly = delivery.show() == Show.LINK;
        boolean anything = delivery.attaches()
                || linkOnly
                || others.stream()
                        .anyMatch(other -> !other.asked().attachments().isEmpty());
        if (!anything) return Attached.NOTHING;
        var of = new ExtractFiles.About(
                context.rule().name(),
                title,
                context.moment().slot(),
                context.rule().zone(),
                split,
                context.copy() == null ? null : context.copy().key());
        var files = new Files();
        for (var wanted : delivery.attachments()) files.add(wanted, rowsOf(wanted.rows(), rows, report), of);
        var held = new LinkedHashMap<String, FileRows>();
        for (int i = 0; i < files.all.size(); i++)
            held.put(files.all.get(i).name(), delivery.attachments().get(i).rows());
        int own = files.all.size();
        for (var other : others)
            for (var wanted : other.asked().attachments()) files.add(wanted, other.rows(), of.with(other.query()));
        var ofOthers = files.all.stream().skip(own).map(ExtractFiles.File::name).collect(Collectors.toSet());
        if (linkOnly) {
            var page = rowsOf(delivery.layout().wholeReport() ? FileRows.ALL : FileRows.OPEN, rows, report);
            files.all.addFirst(ExtractFiles.file(Attachment.of(Format.HTML), page, of));
            return Attached.kept(files.all);
        }
        return packed(
                context,
                report.byLink(),
                of,
                new Attached(files.all, List.of(), held, ofOthers, List.of(), List.of(), files.instead));
    }

    private static Extract rowsOf(FileRows which, ExtractRows rows, ReportRows report) {
        return switch (which) {
            case UPDATES -> report.updates();
            case OPEN -> {
                var all = new ArrayList<>(report.updates().rows());
                all.addAll(rows.extract(report.standing()).rows());
                // Updates come first unless the layout has an order of its own.
                yield rows.hasOrder() ? rows.extract(all) : report.updates().with(all);
            }
            case ALL -> rows.wholeReport(report.whole());
        };
    }

    /** Files under names that differ. */
    private static final class Files {
        private final List<ExtractFiles.File> all = new ArrayList<>();
        private final List<String> instead = new ArrayList<>();
        private final Set<String> names = new HashSet<>();

        void add(Attachment wanted, Extract extract, ExtractFiles.About of) {
            var file = ExtractFiles.file(wanted, extract, of);
            var named = file;
            for (int i = 2; !names.add(named.name()); i++) named = file.numbered(i);
            all.add(named);
            if (!named.name().endsWith("." + wanted.format().code())) instead.add(named.name());
        }
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

    /** Files that are too large for a mail go packed, and if that is not enough, stay behind the link. */
    private Attached packed(MessageContext context, boolean byLink, ExtractFiles.About of, Attached attached) {
        var delivery = context.rule().delivery();
        var files = attached.files();
        long most = mostBytes();
        boolean great = files.stream().mapToLong(file -> asSent(file.bytes())).sum() > most;
        var names = files.stream().map(ExtractFiles.File::name).toList();
        if (delivery.packing() != Packing.ENCRYPTED && byLink)
            return new Attached(List.of(), files, Map.of(), Set.of(), List.of(), names, attached.instead());
        if (delivery.packing() == Packing.NOT && !great) return attached;
        char[] password = delivery.packing() == Packing.ENCRYPTED ? password(context) : null;
        try {
            var entries = files.stream()
                    .map(file -> new ZipPack.Entry(file.name(), file.bytes()))
                    .toList();
            byte[] zip = ZipPack.of(entries, context.moment().slot(), password);
            var packed = List.of(new ExtractFiles.File(of.name(null) + ".zip", "application/zip", zip));
            if (byLink)
                return new Attached(List.of(), packed, Map.of(), Set.of(), List.of(), names, attached.instead());
            if (asSent(zip) <= most)
                return new Attached(
                        packed,
                        List.of(),
                        ofArchive(packed, attached),
                        Set.of(),
                        List.of(),
                        List.of(),
                        attached.instead());
            return new Attached(
                    List.of(),
                    password == null ? files : packed,
                    Map.of(),
                    Set.of(),
                    names,
                    List.of(),
                    attached.instead());
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
    }

    /** What all files of an archive hold; nothing if they differ. */
    private static Map<String, FileRows> ofArchive(List<ExtractFiles.File> archive, Attached files) {
        var kinds = Set.copyOf(files.rows().values());
        return kinds.size() == 1 && files.ofOthers().isEmpty()
                ? Map.of(archive.getFirst().name(), kinds.iterator().next())
                : Map.of();
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
