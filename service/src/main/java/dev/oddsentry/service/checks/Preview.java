package dev.oddsentry.service.checks;

import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.judging.RuleLabels;
import dev.oddsentry.core.memory.NewsKind;
import dev.oddsentry.core.memory.Patience;
import dev.oddsentry.core.memory.Sighting;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.CellText;
import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.history.SeriesStore;
import dev.oddsentry.service.memory.MemoryStore;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.sources.Sources;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.web.RefusedException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Runs the ordinary chain for real and reports and remembers nothing; that someone did so stands in the audit. */
@Component
class Preview {
    private static final int MOST_ROWS_SHOWN = 50;

    private final DefinitionStore definitions;
    private final Sources sources;
    private final Reckoning reckoning;
    private final Telling telling;
    private final MemoryStore memory;
    private final CheckStore checks;
    private final ThresholdStore thresholds;
    private final SeriesStore series;
    private final Audit audit;
    private final DSLContext db;

    Preview(
            DefinitionStore definitions,
            Sources sources,
            Reckoning reckoning,
            Telling telling,
            MemoryStore memory,
            CheckStore checks,
            ThresholdStore thresholds,
            SeriesStore series,
            Audit audit,
            DSLContext db) {
        this.definitions = definitions;
        this.sources = sources;
        this.reckoning = reckoning;
        this.telling = telling;
        this.memory = memory;
        this.checks = checks;
        this.thresholds = thresholds;
        this.series = series;
        this.audit = audit;
        this.db = db;
    }

    /**
     * @param unknownRows rows that are neither exceptions nor not, since a value is missing
     * @param notJudged the first groups that nobody can tell about
     * @param wouldReport findings that a check now would report
     * @param rows the first exceptions, worst first
     */
    record Seen(
            Instant slot,
            long rowsRead,
            long tookMillis,
            long exceptions,
            Map<Severity, Long> bySeverity,
            long unknownRows,
            List<PartCount> parts,
            List<NotJudged> notJudged,
            int wouldReport,
            List<ShownColumn> columns,
            List<ShownRow> rows) {}

    record ShownColumn(String name, String label, String type) {}

    /** @param news why it would be reported; empty if it would not */
    record ShownRow(Severity severity, List<String> news, List<ShownCell> cells) {}

    record ShownCell(@Nullable String text, boolean marked) {}

    /** @throws RefusedException if it cannot be run, with the reason in words */
    Seen run(Person by, UUID ruleId, Instant slot) {
        var rule = definitions.rule(ruleId).orElseThrow();
        audit.record(db, by.id(), "preview rule", rule.definition().name(), null);
        long began = System.nanoTime();
        try {
            return Refusals.inWords(() -> run(rule, slot, began));
        } catch (InvalidDefinitionException noLongerFits) {
            throw RefusedException.invalid("The rule no longer fits its query: " + noLongerFits.getMessage() + ".");
        }
    }

    private Seen run(Current<RuleDefinition> rule, Instant slot, long began) {
        var query = definitions.query(rule.definition().query()).orElseThrow();
        var source = sources.require(query.definition().source());
        var moment = new Moment(slot, rule.definition().zone());
        var goodSlots = checks.goodSlots(rule.id());
        var used = thresholds.named(rule.definition().thresholdsUsed());
        var reckoned = reckoning.reckon(new Question(
                rule.definition(),
                query.definition(),
                source,
                moment,
                used,
                memory.known(rule.id()),
                new Patience.Tick(goodSlots, true, slot),
                new StoredPast(series, rule.id(), rule.definition(), query.definition(), moment, goodSlots)));
        var choice = telling.choose(
                rule.definition(), reckoned, memory.audience(rule.id()).isEmpty());
        var rows =
                new ExtractRows(new RuleLabels(rule.definition(), query.definition(), used, moment.today()), reckoned);
        return new Seen(
                slot,
                reckoned.reading().rows(),
                Duration.ofNanos(System.nanoTime() - began).toMillis(),
                reckoned.exceptions().size(),
                bySeverity(reckoned),
                reckoned.judge().unknownRows(),
                PartCount.of(reckoned),
                NotJudged.first(reckoned, moment),
                choice.told().size(),
                rows.columns().stream()
                        .map(column -> new ShownColumn(
                                column.name(), column.label(), column.type().code()))
                        .toList(),
                shown(reckoned, choice, rows, moment));
    }

    private static Map<Severity, Long> bySeverity(Reckoned reckoned) {
        var counts = new EnumMap<Severity, Long>(Severity.class);
        reckoned.exceptions().forEach(sighting -> {
            if (sighting.severity() != null) counts.merge(sighting.severity(), 1L, Long::sum);
        });
        return counts;
    }

    private static List<ShownRow> shown(Reckoned reckoned, Telling.Choice choice, ExtractRows rows, Moment moment) {
        var kinds = new HashMap<Digest, Set<NewsKind>>();
        choice.told().forEach(item -> kinds.put(item.subject().key(), item.kinds()));
        var worstFirst = new ArrayList<>(reckoned.exceptions());
        worstFirst.sort(Comparator.comparing(Sighting::severity, Comparator.nullsFirst(Comparator.naturalOrder()))
                .reversed());
        return worstFirst.stream()
                .limit(MOST_ROWS_SHOWN)
                .map(sighting -> {
                    var row = rows.standing(sighting);
                    var news = kinds.getOrDefault(sighting.key(), Set.of()).stream()
                            .sorted()
                            .map(NewsKind::code)
                            .toList();
                    var cells = row.cells().stream()
                            .map(cell -> new ShownCell(
                                    cell.value() == null ? null : CellText.of(cell.value(), moment.zone()),
                                    cell.marked()))
                            .toList();
                    return new ShownRow(row.severity(), news, cells);
                })
                .toList();
    }
}
