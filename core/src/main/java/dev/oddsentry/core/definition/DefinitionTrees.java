package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.OccasionsDefinition.WhenEmpty;
import dev.oddsentry.core.extract.Language;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.time.Span;
import java.time.Duration;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.snakeyaml.engine.v2.api.Dump;
import org.snakeyaml.engine.v2.api.DumpSettings;
import org.snakeyaml.engine.v2.common.FlowStyle;

/** Definitions as ordered trees, in the order an analyst works, with what is empty left out. */
final class DefinitionTrees {
    private DefinitionTrees() {}

    static Map<String, Object> of(QueryDefinition query) {
        var tree = new Tree()
                .put("kind", "query")
                .put("id", query.id())
                .put("name", query.name())
                .put("title", query.title())
                .put("categories", query.categories());
        tree.put("source", query.source()).put("sql", query.sql());
        var parameters = new LinkedHashMap<String, Object>();
        query.parameters().forEach((name, parameter) -> parameters.put(name, of(parameter)));
        var columns = new LinkedHashMap<String, Object>();
        query.columns()
                .forEach((name, meaning) -> columns.put(
                        name,
                        new Tree()
                                .put("label", meaning.label())
                                .put("unit", meaning.unit())
                                .put(
                                        "format",
                                        meaning.format() == null
                                                ? null
                                                : meaning.format().pattern())
                                .put("words", meaning.words())
                                .fields));
        return tree.put("parameters", parameters).put("columns", columns).fields;
    }

    private static Map<String, Object> of(QueryDefinition.Parameter parameter) {
        return new Tree()
                .put("type", parameter.type().code())
                .put("default", parameter.preset())
                .put("multiple", parameter.several() ? true : null)
                .put("optional", parameter.optional() ? true : null)
                .put("choices", choices(parameter.choices()))
                .put("help", parameter.help())
                .fields;
    }

    private static @Nullable Object choices(QueryDefinition.@Nullable Choices choices) {
        return switch (choices) {
            case null -> null;
            case QueryDefinition.Choices.Listed(var values) -> values;
            case QueryDefinition.Choices.OfQuery(var from, var value, var label) ->
                new Tree().put("from", from).put("value", value).put("label", label).fields;
        };
    }

    static Map<String, Object> of(RuleDefinition rule) {
        var tree = new Tree()
                .put("kind", "rule")
                .put("id", rule.id())
                .put("name", rule.name())
                .put("title", rule.title());
        tree.put("owner", rule.owner())
                .put("query", rule.query())
                .put("zone", rule.zone().getId())
                .put("labels", rule.filing().labels())
                .put("copied_from", rule.filing().copiedFrom());
        tree.put("parameters", rule.parameters());
        if (rule.groups() != null) putGroups(tree, rule.groups());
        tree.put("exceptions", rule.exceptions());
        tree.put("severity", rule.severity().stream().map(DefinitionTrees::of).toList());
        tree.put("fire_when", rule.fireWhen());
        tree.put("memory", of(rule.memory())).put("schedule", of(rule.schedule(), rule.occasions()));
        tree.put("limits", of(rule.limits()));
        if (rule.copies() != null) tree.put("copies", of(rule.copies()));
        return tree.put("delivery", DeliveryTrees.of(rule.delivery())).fields;
    }

    static Map<String, Object> of(SharedLayoutDefinition shared) {
        var tree = new Tree()
                .put("kind", "layout")
                .put("id", shared.id())
                .put("name", shared.name())
                .put("title", shared.title())
                .put("private_to", shared.privateTo());
        tree.fields.putAll(DeliveryTrees.of(shared.layout()));
        return tree.fields;
    }

    static Map<String, Object> of(RoundUpDefinition roundUp) {
        var tree = new Tree()
                .put("kind", "round-up")
                .put("id", roundUp.id())
                .put("name", roundUp.name())
                .put("title", roundUp.title());
        return tree.put("owner", roundUp.owner())
                .put("zone", roundUp.zone().getId())
                .put(
                        "language",
                        roundUp.language() == Language.EN
                                ? null
                                : roundUp.language().code())
                .put("rules", roundUp.rules())
                .put("to", roundUp.to())
                .put(
                        "send_immediately",
                        roundUp.atOnce() == null ? null : roundUp.atOnce().word())
                .put("schedule", of(roundUp.schedule(), OccasionsDefinition.NONE))
                .fields;
    }

    private static Map<String, Object> of(CopiesDefinition copies) {
        boolean usualAddress = copies.address().equals(CopiesDefinition.USUAL_ADDRESS);
        return new Tree()
                .put("from", copies.from())
                .put("key", copies.key())
                .put("address", usualAddress ? null : copies.address())
                .put("greeting", copies.greeting())
                .put("parameters", copies.parameters())
                .put(
                        "newcomers",
                        copies.newcomers() == FirstCheck.TREAT_AS_KNOWN
                                ? null
                                : copies.newcomers().code())
                .fields;
    }

    private static void putGroups(Tree tree, RuleDefinition.GroupsDefinition groups) {
        // An empty list says something here: the whole result is one group.
        tree.fields.put("per", groups.per());
        var measures = new LinkedHashMap<String, Object>();
        groups.measures().forEach((name, measure) -> measures.put(name, of(measure)));
        tree.put("measures", measures);
        tree.put(
                "expected_groups",
                switch (groups.from()) {
                    case null -> null;
                    case RuleDefinition.ExpectedGroups.OfQuery(var query) -> query;
                    case RuleDefinition.ExpectedGroups.OfLastChecks(int checks) -> "last " + checks + " checks";
                });
    }

    private static Object of(RuleDefinition.Measure measure) {
        if (measure.label() == null && measure.unit() == null) return measure.value();
        return new Tree()
                .put("value", measure.value())
                .put("label", measure.label())
                .put("unit", measure.unit())
                .fields;
    }

    static Map<String, Object> of(ThresholdDefinition threshold) {
        return new Tree()
                .put("kind", "threshold")
                .put("id", threshold.id())
                .put("name", threshold.name())
                .put("title", threshold.title())
                .put("unit", threshold.unit())
                .put("description", threshold.description())
                .put("key", threshold.key())
                .fields;
    }

    static Map<String, Object> of(CalendarDefinition calendar) {
        var holidays = new LinkedHashMap<String, Object>();
        calendar.days().holidays().forEach((date, name) -> holidays.put(date.toString(), name));
        return new Tree()
                .put("kind", "calendar")
                .put("id", calendar.id())
                .put("name", calendar.name())
                .put("title", calendar.title())
                .put(
                        "week",
                        calendar.days().week().stream()
                                .sorted()
                                .map(day -> day.name().toLowerCase(Locale.ROOT))
                                .toList())
                .put("holidays", holidays)
                .put(
                        "extra_working_days",
                        calendar.days().worked().stream()
                                .sorted()
                                .map(LocalDate::toString)
                                .toList())
                .put(
                        "periods",
                        calendar.days().periods().stream()
                                .map(LocalDate::toString)
                                .toList())
                .fields;
    }

    private static Object of(RuleDefinition.Band band) {
        return band.condition() == null
                ? band.severity().word()
                : Map.of(band.severity().word(), band.condition());
    }

    private static Map<String, Object> of(MemoryDefinition memory) {
        var tree = new Tree().put("mode", memory.mode().name().toLowerCase(Locale.ROOT));
        tree.put("key", memory.key()).put("watch", memory.watch());
        tree.put(
                "report",
                memory.report().stream().sorted().map(UpdateKind::code).toList());
        tree.put("absence", memory.absence() == null ? null : memory.absence().code());
        tree.put(
                "open_after",
                memory.hold().equals(MinimumDuration.NONE)
                        ? null
                        : memory.hold().text());
        tree.put(
                "clear_after",
                memory.misses().equals(MinimumDuration.NONE)
                        ? null
                        : memory.misses().text());
        tree.put("confirm_after", memory.guard() == 0 ? null : new MinimumDuration.Checks(memory.guard()).text());
        tree.put("remind_every", memory.remindEvery() == null ? null : MinimumDuration.text(memory.remindEvery()));
        var percent = memory.brakes().mostClearedPercent();
        boolean usual = percent != null && percent == MemoryDefinition.Brakes.USUAL_PERCENT;
        tree.put("max_cleared", usual ? null : (percent == null ? 100 : percent) + " %");
        tree.put("max_opened", memory.brakes().mostOpened());
        tree.put("forget_after", memory.forgetAfter() == null ? null : MinimumDuration.text(memory.forgetAfter()));
        return tree.put("first_check", memory.firstCheck().code()).fields;
    }

    private static Map<String, Object> of(RuleDefinition.LimitsDefinition limits) {
        boolean usualWait = limits.retryAfter().equals(RuleDefinition.LimitsDefinition.USUAL_WAIT);
        return new Tree()
                .put("time_limit", limits.timeLimit() == null ? null : text(limits.timeLimit()))
                .put("retries", limits.retries() == 0 ? null : limits.retries())
                .put("retry_after", usualWait ? null : text(limits.retryAfter()))
                .fields;
    }

    private static String text(Duration time) {
        return MinimumDuration.text(Span.between(time));
    }

    private static Map<String, Object> of(ScheduleDefinition schedule, OccasionsDefinition occasions) {
        return new Tree()
                .put("start", text(schedule.start()))
                .put("recur", schedule.recur())
                .put("working_days", schedule.workingDays())
                .put(
                        "also",
                        schedule.also().stream().map(LocalDateTime::toString).toList())
                .put("except", excepted(schedule))
                .put("until", text(schedule.until()))
                .put("calendar", schedule.calendar())
                .put(
                        "on_holidays",
                        schedule.onHoliday() == null
                                ? null
                                : schedule.onHoliday().code())
                .put(
                        "missed",
                        schedule.missed() == null ? null : schedule.missed().code())
                .put("events", occasions.events())
                .put(
                        "after",
                        occasions.after().stream().map(DefinitionTrees::of).toList())
                .put("ready_when", occasions.ready() == null ? null : of(occasions.ready()))
                .put(
                        "when_empty",
                        occasions.whenEmpty() == WhenEmpty.QUIET
                                ? null
                                : occasions.whenEmpty().name().toLowerCase(Locale.ROOT))
                .fields;
    }

    private static Object of(OccasionsDefinition.After after) {
        if (after.on().equals(OccasionsDefinition.After.USUAL)) return after.rule();
        var on = after.on().stream()
                .sorted()
                .map(outcome -> outcome.name().toLowerCase(Locale.ROOT))
                .toList();
        return new Tree().put("rule", after.rule()).put("on", on).fields;
    }

    private static Map<String, Object> of(OccasionsDefinition.ReadyWhen ready) {
        return new Tree()
                .put("query", ready.query())
                .put("every", text(ready.askEvery()))
                .put("until", text(ready.until()))
                .fields;
    }

    private static List<String> excepted(ScheduleDefinition schedule) {
        return Stream.concat(
                        schedule.exceptDates().stream().map(LocalDate::toString),
                        schedule.except().stream().map(LocalDateTime::toString))
                .toList();
    }

    private static @Nullable String text(@Nullable LocalDateTime local) {
        return local == null ? null : local.toString();
    }

    static String print(Map<String, Object> tree) {
        var settings = DumpSettings.builder()
                .setDefaultFlowStyle(FlowStyle.BLOCK)
                .setUseUnicodeEncoding(true)
                // Two empty lists are one object, which would be written once and referred to.
                .setDereferenceAliases(true)
                .setWidth(100)
                .build();
        return new Dump(settings).dumpToString(tree);
    }
}
