package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.definition.RuleDefinition.LimitsDefinition;
import dev.oddsentry.core.definition.RuleDefinition.Mode;
import dev.oddsentry.core.definition.RuleDefinition.SeverityLevel;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldType;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.Shape;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/** A rule's document. The grammar of conditions is checked here, against columns when the rule is saved. */
final class RuleFields {
    /** A parameter's value, or several. */
    static final FieldType<String> VALUES = values(true, _ -> {});

    static final Part<RuleDefinition> PART =
            CommonFields.table(Kind.RULE, "Watches one query: what is an exception, when to check, whom to mail.");

    private static final Field<RuleDefinition, String> OWNER = PART.field(
                    "owner",
                    FieldTypes.text("name of a team"),
                    RuleDefinition::owner,
                    "The team that owns the rule and gets its failure notices.")
            .required("Traffic reporting");

    static {
        CommonFields.addVisibility(PART);
    }

    private static final Field<RuleDefinition, String> QUERY = PART.field(
                    "query", FieldTypes.nameOf("query"), RuleDefinition::query, "The query that the rule watches.")
            .required("sailings-lately");
    private static final Field<RuleDefinition, ZoneId> ZONE = PART.field(
                    "zone",
                    CommonFields.ZONE,
                    RuleDefinition::zone,
                    "The zone of the schedule, relative dates and messages.")
            .usual(ZoneOffset.UTC)
            .usually("UTC")
            .alwaysWritten();
    private static final Field<RuleDefinition, List<String>> LABELS = PART.field(
                    "labels", CommonFields.LABEL.list(), rule -> rule.filing().labels(), "For filters in lists.")
            .usual(List.of());
    private static final Field<RuleDefinition, String> COPIED_FROM = PART.field(
            "copied_from",
            FieldTypes.text("name of a rule"),
            rule -> rule.filing().copiedFrom(),
            "The rule that this one is a copy of.");
    private static final Field<RuleDefinition, Map<String, String>> PARAMETERS = PART.field(
                    "parameters",
                    FieldTypes.byName(VALUES),
                    RuleDefinition::parameters,
                    "Values for the query's parameters: literals or relative dates such as `today - 7 days`.")
            .usual(Map.of())
            .usually("the query's defaults");

    static {
        PART.include(GroupsFields.PART, RuleDefinition::groups);
    }

    private static final Field<RuleDefinition, String> EXCEPTIONS = PART.field(
                    "exceptions",
                    Conditions.CONDITION,
                    RuleDefinition::exceptions,
                    "Rows or groups for which this is true are exceptions.")
            .usually("all are exceptions");
    private static final Field<RuleDefinition, List<SeverityLevel>> SEVERITY = PART.field(
                    "severity",
                    SeverityFields.LEVELS,
                    rule -> rule.isPlainReport() ? null : rule.severity(),
                    "The first level whose condition is true is the severity of an exception.")
            .usual(SeverityFields.EVERY_EXCEPTION_A_WARNING)
            .usually("`warning`")
            .alwaysWritten();
    private static final Field<RuleDefinition, String> FIRE_WHEN = PART.field(
                    "fire_when",
                    Conditions.FIRE_WHEN,
                    RuleDefinition::fireWhen,
                    "The check reports only if this is true: `exceptions()`, `exceptions('critical')`, `updates()`, `updates('worsened')`.")
            .usually("whenever there are updates");
    private static final Field<RuleDefinition, MemoryDefinition> MEMORY = PART.field(
            "memory",
            FieldTypes.part(MemoryFields.PART, MemoryFields::read),
            RuleDefinition::memory,
            MemoryFields.PART.help());
    private static final Field<RuleDefinition, ScheduleFields.Schedule> SCHEDULE = PART.field(
            "schedule",
            FieldTypes.part(ScheduleFields.PART, ScheduleFields::read),
            rule -> new ScheduleFields.Schedule(rule.schedule(), rule.triggers()),
            ScheduleFields.PART.help());
    private static final Field<RuleDefinition, LimitsDefinition> LIMITS = PART.field(
                    "limits",
                    FieldTypes.part(LimitsFields.PART, LimitsFields::read),
                    RuleDefinition::limits,
                    LimitsFields.PART.help())
            .usual(LimitsDefinition.USUAL)
            .usually("");
    private static final Field<RuleDefinition, CopiesDefinition> COPIES = PART.field(
            "copies",
            FieldTypes.optionalPart(CopiesFields.PART, CopiesFields::read),
            RuleDefinition::copies,
            CopiesFields.PART.help());
    private static final Field<RuleDefinition, DeliveryDefinition> DELIVERY = PART.field(
            "delivery",
            FieldTypes.part(DeliveryFields.PART, DeliveryFields::read),
            RuleDefinition::delivery,
            DeliveryFields.PART.help());

    private RuleFields() {}

    static RuleDefinition read(Fields top) {
        var common = CommonFields.read(top);
        var groups = GroupsFields.read(top);
        var schedule = SCHEDULE.in(top);
        var rule = new RuleDefinition(
                common.id(),
                common.name(),
                common.title(),
                OWNER.read(top).orElse(""),
                QUERY.read(top).orElse(""),
                ZONE.in(top),
                PARAMETERS.in(top),
                groups,
                EXCEPTIONS.orNull(top),
                SEVERITY.in(top),
                FIRE_WHEN.orNull(top),
                MEMORY.in(top),
                schedule.times(),
                schedule.occasions(),
                LIMITS.in(top),
                COPIES.orNull(top),
                DELIVERY.in(top),
                new RuleDefinition.Filing(LABELS.in(top), COPIED_FROM.orNull(top), CommonFields.visibleTo(top)));
        checkKey(rule, top.fields(MEMORY.name()));
        if (rule.isPlainReport()) PlainReport.refuseFindings(top);
        return rule;
    }

    private static void checkKey(RuleDefinition rule, Fields memory) {
        boolean grouped = rule.groups() != null;
        boolean keyed = !rule.memory().key().isEmpty();
        if (grouped && keyed) memory.refuse("key", "a rule with per: has one finding per group; remove key");
        if (!grouped && !keyed && rule.memory().mode() == Mode.INCREMENTAL)
            memory.refuse("key", "An incremental rule needs key columns: memory: key: [...]");
    }

    /** One value, or a list where {@code several} are allowed, each of which {@code check} may refuse. */
    static FieldType<String> values(boolean several, Consumer<String> check) {
        return FieldType.of(
                several ? Shape.scalar("value").orList() : Shape.scalar("value"),
                (fields, name) -> {
                    if (several && fields.isList(name))
                        return Optional.of(ValueList.print(fields.parsedItems(name, text -> checked(text, check))));
                    return fields.parsed(name, text -> checked(text, check));
                },
                value -> value);
    }

    private static String checked(String text, Consumer<String> check) {
        check.accept(text);
        return text;
    }
}
