package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.extract.Extract;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.extracts.csv.CsvExtract;
import dev.oddsentry.extracts.mail.Announcement;
import dev.oddsentry.service.calendars.Schedules;
import dev.oddsentry.service.config.Settings;
import dev.oddsentry.service.layouts.ExtractRows;
import dev.oddsentry.service.mail.MessageBuilder;
import dev.oddsentry.service.memory.AudienceKey;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.outbox.NewMessage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Writes what is told into the bytes of a message: the rows in the mail, and everything open as an attachment. */
@Component
class Announcing {
    private final MemoryStore memory;
    private final MessageBuilder messages;
    private final Schedules schedules;
    private final Settings settings;
    private final Addresses addresses;

    Announcing(
            MemoryStore memory, MessageBuilder messages, Schedules schedules, Settings settings, Addresses addresses) {
        this.memory = memory;
        this.messages = messages;
        this.schedules = schedules;
        this.settings = settings;
        this.addresses = addresses;
    }

    /** One for each audience that has anything to hear; those for whom nobody is named hear by one together. */
    List<Told.Outgoing> messages(About about, Reckoned reckoned, Told told) {
        // A rule that only a round-up tells of has nobody of its own.
        return letters(about, reckoned, told).stream()
                .filter(letter -> !letter.to().isEmpty())
                .map(letter -> new Told.Outgoing(message(about, reckoned, letter), letter.parts()))
                .toList();
    }

    /** Those of the messages that go to this address among others, written to it alone. */
    List<Told.Outgoing> messagesTo(String address, About about, Reckoned reckoned, Told told) {
        return letters(about, reckoned, told).stream()
                .map(letter -> letter.toOnly(address))
                .filter(letter -> !letter.to().isEmpty())
                .map(letter -> new Told.Outgoing(message(about, reckoned, letter), letter.parts()))
                .toList();
    }

    private List<Letter> letters(About about, Reckoned reckoned, Told told) {
        var hearing = told.parts().stream()
                .filter(part -> !part.told().isEmpty())
                .sorted(Comparator.comparing(
                        part -> part.audience().split(), Comparator.nullsFirst(Comparator.naturalOrder())))
                .toList();
        if (hearing.isEmpty()) return List.of();
        Map<AudienceKey, Instant> lastReports = about.scope() == null ? Map.of() : memory.lastReports(about.scope());
        var split = about.rule().delivery().split();
        if (split == null) {
            var last = lastReports.get(hearing.getFirst().audience());
            return List.of(new Letter(hearing, about.to(), null, reckoned.open(), last));
        }
        var addresses = this.addresses.of(about.rule(), about.moment(), split);
        Map<AudienceKey, Integer> open = about.scope() == null ? Map.of() : memory.open(about.scope());
        var letters = new ArrayList<Letter>();
        var unassigned = new ArrayList<Told.Part>();
        for (var part : hearing) {
            String value = Objects.requireNonNullElse(part.audience().split(), "");
            var to = addresses.getOrDefault(value, List.of());
            if (to.isEmpty()) unassigned.add(part);
            else letters.add(new Letter(List.of(part), to, value, open(open, part), lastReports.get(part.audience())));
        }
        if (!unassigned.isEmpty()) {
            long openOfAll =
                    unassigned.stream().mapToLong(part -> open(open, part)).sum();
            Instant since = unassigned.stream()
                    .map(part -> lastReports.get(part.audience()))
                    .filter(Objects::nonNull)
                    .max(Comparator.naturalOrder())
                    .orElse(null);
            letters.add(new Letter(unassigned, about.to(), "others", openOfAll, since));
        }
        return letters;
    }

    private static long open(Map<AudienceKey, Integer> before, Told.Part part) {
        return before.getOrDefault(part.audience(), 0) + part.openedMore();
    }

    /**
     * @param split whose part it is, in words; null for the whole
     * @param open how many findings of these audiences are open
     * @param since the slot of the report before
     */
    private record Letter(
            List<Told.Part> parts,
            List<String> to,
            @Nullable String split,
            long open,
            @Nullable Instant since) {
        /** As the address is written here, whose case may matter to its server. */
        Letter toOnly(String address) {
            var only = to.stream().filter(address::equalsIgnoreCase).limit(1).toList();
            return new Letter(parts, only, split, open, since);
        }

        List<Told.Item> told() {
            return parts.stream().flatMap(part -> part.told().stream()).toList();
        }

        boolean has(AudienceKey audience) {
            return parts.stream().anyMatch(part -> part.audience().equals(audience));
        }

        int leftOut() {
            return parts.stream().mapToInt(Told.Part::leftOut).sum();
        }
    }

    private NewMessage message(About about, Reckoned reckoned, Letter letter) {
        var rule = about.rule();
        var labels = about.labels();
        var rows = reckoned.rows(labels);
        var news = new Extract(rule.zone(), rows.columns(), newsRows(letter, reckoned, rows));
        String attachment = rule.delivery().attachCsv() ? fileName(about) : null;
        var said = new Announcement(
                title(about, letter),
                about.copy() == null ? null : about.copy().greeting(),
                rule.owner(),
                rule.zone(),
                about.moment().slot(),
                news,
                letter.open(),
                letter.leftOut(),
                (rule.groups() == null ? "for these rows: " : "") + labels.exceptions(rule.exceptions()),
                NotCounted.of(reckoned, labels, rule.zone()),
                new Announcement.Habit(
                        rule.memory().mode() == RuleDefinition.Mode.FULL,
                        rule.memory().report(),
                        rule.memory().remindEvery() == null
                                ? null
                                : Patience.text(rule.memory().remindEvery())),
                letter.since(),
                schedules.of(rule).nextAfter(about.moment().slot()).orElse(null),
                attachment,
                settings.baseUrl() + "/rules/" + rule.name());
        byte[] csv = attachment == null ? null : csv(everythingOpen(news, letter, reckoned, rows));
        return messages.build(letter.to(), rule, said, csv);
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
        news.sort(Comparator.comparing(Extract.Row::severity).reversed());
        return news;
    }

    /** The news first, then what was told before and is still there. */
    private static Extract everythingOpen(Extract news, Letter letter, Reckoned reckoned, ExtractRows rows) {
        Set<Digest> toldKeys = new HashSet<>();
        letter.told().forEach(item -> toldKeys.add(item.subject().key()));
        var all = new ArrayList<>(news.rows());
        var standing = new ArrayList<Extract.Row>();
        reckoned.exceptions().forEach(sighting -> {
            boolean open = !reckoned.pending().contains(sighting.key()) && !toldKeys.contains(sighting.key());
            if (open && (letter.split() == null || letter.has(reckoned.audienceOf(sighting))))
                standing.add(rows.standing(sighting));
        });
        standing.sort(Comparator.comparing(Extract.Row::severity).reversed());
        all.addAll(standing);
        return new Extract(news.zone(), news.columns(), all);
    }

    private static String fileName(About about) {
        RuleDefinition rule = about.rule();
        return rule.name() + "-" + about.moment().slot().atZone(rule.zone()).toLocalDate() + ".csv";
    }

    private static byte[] csv(Extract extract) {
        var out = new ByteArrayOutputStream();
        try {
            CsvExtract.write(extract, out);
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toByteArray();
    }
}
