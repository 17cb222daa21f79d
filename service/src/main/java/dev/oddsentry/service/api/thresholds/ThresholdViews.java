package dev.oddsentry.service.api.thresholds;

import de.siegmar.fastcsv.writer.CsvWriter;
import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.ThresholdDefinition;
import dev.oddsentry.core.threshold.ThresholdTable;
import dev.oddsentry.service.definitions.DefinitionStore;
import dev.oddsentry.service.definitions.DefinitionStore.Current;
import dev.oddsentry.service.thresholds.ThresholdStore;
import dev.oddsentry.service.visibility.UnknownNames;
import dev.oddsentry.service.visibility.VisibleDefinitions;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** Thresholds as lists and pages show them. Today is UTC's; a check takes the date in its rule's zone. */
@Component
class ThresholdViews {
    private final DefinitionStore definitions;
    private final ThresholdStore store;
    private final Clock clock;

    private final UnknownNames unknown;
    private final VisibleDefinitions visible;

    ThresholdViews(
            DefinitionStore definitions,
            ThresholdStore store,
            Clock clock,
            UnknownNames unknown,
            VisibleDefinitions visible) {
        this.visible = visible;
        this.unknown = unknown;
        this.definitions = definitions;
        this.store = store;
        this.clock = clock;
    }

    /**
     * @param number the default that applies today; null where there is none
     * @param planned how many values are yet to apply
     */
    record ThresholdSummary(
            String name,
            String title,
            @Nullable String unit,
            @Nullable String description,
            @Nullable String owner,
            List<String> key,
            @Nullable BigDecimal number,
            int values,
            int planned,
            List<String> rules) {}

    /** Whether a value has had its time, applies today, or is yet to apply. */
    enum When {
        PAST,
        NOW,
        PLANNED
    }

    record ThresholdValueView(List<String> key, @Nullable LocalDate from, BigDecimal number, When when) {}

    /** @param history every change, newest first */
    record ThresholdPage(
            ThresholdSummary threshold, List<ThresholdValueView> values, List<ThresholdStore.ThresholdValue> history) {}

    List<ThresholdSummary> all() {
        return visible.thresholds().stream().map(this::summary).toList();
    }

    ThresholdPage page(String name) {
        var threshold = require(name);
        var table = store.table(threshold);
        var values = inOrder(table).stream()
                .map(value -> new ThresholdValueView(value.key(), value.from(), value.number(), when(value, table)))
                .toList();
        return new ThresholdPage(summary(threshold), values, store.history(threshold.id()));
    }

    private Current<ThresholdDefinition> require(String name) {
        return definitions.threshold(name).orElseThrow(() -> unknown.of(Kind.THRESHOLD, name));
    }

    private ThresholdSummary summary(Current<ThresholdDefinition> threshold) {
        var definition = threshold.definition();
        var table = store.table(threshold);
        int planned = (int) table.values().stream()
                .filter(value -> when(value, table) == When.PLANNED)
                .count();
        return new ThresholdSummary(
                definition.name(),
                definition.title(),
                definition.unit(),
                definition.description(),
                definition.owner(),
                definition.key(),
                table.on(today()).get(List.<String>of()),
                table.values().size(),
                planned,
                rulesThatUse(definition.name()));
    }

    List<String> rulesThatUse(String name) {
        return visible.rules().stream()
                .map(Current::definition)
                .filter(rule -> rule.thresholdsUsed().contains(name))
                .map(rule -> rule.name())
                .toList();
    }

    private When when(ThresholdTable.Value value, ThresholdTable table) {
        if (value.from() != null && value.from().isAfter(today())) return When.PLANNED;
        var later = table.values().stream()
                .filter(other -> other.key().equals(value.key()) && other.from() != null)
                .map(other -> Objects.requireNonNull(other.from()))
                .filter(from -> !from.isAfter(today()) && (value.from() == null || from.isAfter(value.from())))
                .findAny();
        return later.isPresent() ? When.PAST : When.NOW;
    }

    private LocalDate today() {
        return clock.instant().atOffset(ZoneOffset.UTC).toLocalDate();
    }

    private static List<ThresholdTable.Value> inOrder(ThresholdTable table) {
        return table.values().stream()
                .sorted(Comparator.comparing((ThresholdTable.Value value) -> String.join("\u0000", value.key()))
                        .thenComparing(ThresholdTable.Value::from, Comparator.nullsFirst(Comparator.naturalOrder())))
                .toList();
    }

    /** The values as a table that can be read in again. */
    String csv(String name) {
        var threshold = require(name);
        var out = new StringWriter();
        try (var csv = CsvWriter.builder().build(out)) {
            var head = new ArrayList<>(threshold.definition().key());
            head.addAll(List.of("from", "number"));
            csv.writeRecord(head);
            for (var value : inOrder(store.table(threshold))) {
                var line = new ArrayList<String>(value.key());
                while (line.size() < threshold.definition().key().size()) line.add("");
                line.add(value.from() == null ? "" : value.from().toString());
                line.add(value.number().toPlainString());
                csv.writeRecord(line);
            }
        } catch (IOException impossible) {
            throw new UncheckedIOException(impossible);
        }
        return out.toString();
    }
}
