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
import dev.oddsentry.service.mail.MessageBuilder;
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

    Announcing(MemoryStore memory, MessageBuilder messages, Schedules schedules, Settings settings) {
        this.memory = memory;
        this.messages = messages;
        this.schedules = schedules;
        this.settings = settings;
    }

    /** @param since the slot of the report before */
    NewMessage message(Attempt attempt, Reckoned reckoned, Told all, @Nullable Instant since) {
        var told = all.told();
        var rule = attempt.rule().definition();
        var labels = attempt.labels();
        var rows = new ExtractRows(rule, labels, reckoned);
        var news = new Extract(rule.zone(), rows.columns(), newsRows(told, reckoned, rows));
        String attachment = rule.delivery().attachCsv() ? fileName(attempt) : null;
        var said = new Announcement(
                rule.title(),
                rule.owner(),
                rule.zone(),
                attempt.slot(),
                news,
                reckoned.open(),
                all.leftOut(),
                (rule.groups() == null ? "for these rows: " : "") + labels.exceptions(rule.exceptions()),
                NotCounted.of(reckoned, labels, rule.zone()),
                new Announcement.Habit(
                        rule.memory().mode() == RuleDefinition.Mode.FULL,
                        rule.memory().report(),
                        rule.memory().remindEvery() == null
                                ? null
                                : Patience.text(rule.memory().remindEvery())),
                since,
                schedules.of(rule).nextAfter(attempt.slot()).orElse(null),
                attachment,
                settings.baseUrl() + "/rules/" + rule.name());
        byte[] csv = attachment == null ? null : csv(everythingOpen(news, told, reckoned, rows));
        return messages.build(rule, said, csv);
    }

    private List<Extract.Row> newsRows(List<Told.Item> told, Reckoned reckoned, ExtractRows rows) {
        var present = new HashMap<Digest, Sighting>();
        var toldKeys = new HashSet<Digest>();
        told.forEach(item -> toldKeys.add(item.subject().key()));
        reckoned.exceptions().forEach(toldKeys::contains, sighting -> present.put(sighting.key(), sighting));
        var ids = told.stream()
                .map(item -> item.subject().id())
                .filter(Objects::nonNull)
                .toList();
        var lastRows = memory.lastRows(ids);
        var reportedRows = memory.reportedRows(ids);
        var news = new ArrayList<Extract.Row>();
        for (var item : told) {
            Sighting sighting = present.get(item.subject().key());
            Map<String, @Nullable Object> was =
                    reportedRows.getOrDefault(item.subject().id(), Map.of());
            news.add(
                    sighting != null
                            ? rows.present(sighting, item, was)
                            : rows.past(
                                    item, lastRows.getOrDefault(item.subject().id(), Map.of())));
        }
        news.sort(Comparator.comparing(Extract.Row::severity).reversed());
        return news;
    }

    /** The news first, then what was told before and is still there. */
    private static Extract everythingOpen(Extract news, List<Told.Item> told, Reckoned reckoned, ExtractRows rows) {
        Set<Digest> toldKeys = new HashSet<>();
        told.forEach(item -> toldKeys.add(item.subject().key()));
        var all = new ArrayList<>(news.rows());
        var standing = new ArrayList<Extract.Row>();
        reckoned.exceptions().forEach(sighting -> {
            if (!reckoned.pending().contains(sighting.key()) && !toldKeys.contains(sighting.key()))
                standing.add(rows.standing(sighting));
        });
        standing.sort(Comparator.comparing(Extract.Row::severity).reversed());
        all.addAll(standing);
        return new Extract(news.zone(), news.columns(), all);
    }

    private static String fileName(Attempt attempt) {
        RuleDefinition rule = attempt.rule().definition();
        return rule.name() + "-" + attempt.slot().atZone(rule.zone()).toLocalDate() + ".csv";
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
