package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.RuleDefinition.ExpectedGroups;
import dev.oddsentry.core.definition.RuleDefinition.GroupsDefinition;
import dev.oddsentry.core.definition.RuleDefinition.Measure;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldType;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Names;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** How a rule groups rows, and what it measures of each group. */
final class GroupsFields {
    private static final Pattern LAST_CHECKS = Pattern.compile("last (\\d{1,4}) checks?");

    private static final Part<Measure> MEASURE = new Part<>("measure", "A number calculated for each group.");
    private static final Field<Measure, String> VALUE = MEASURE.field(
                    "value",
                    Conditions.EXPRESSION,
                    Measure::value,
                    "An expression over aggregates and earlier measures.")
            .required("sum(litres)");
    private static final Field<Measure, String> LABEL = MEASURE.field(
                    "label", FieldTypes.TEXT, Measure::label, "What people see.")
            .usually("the measure's name");
    private static final Field<Measure, String> UNIT =
            MEASURE.field("unit", FieldTypes.TEXT, Measure::unit, "Shown after the value.");

    /** The fields that stand at the top of a rule. */
    static final Part<GroupsDefinition> PART = new Part<>("groups", "Groups of rows.");

    private static final Field<GroupsDefinition, List<String>> PER = PART.field(
                    "per",
                    FieldTypes.TEXT.described("column").list(),
                    GroupsDefinition::per,
                    "One group for each combination of values of these columns; `[]`: the whole result is one group.")
            .usual(List.of())
            .usually("each row is evaluated")
            .alwaysWritten();
    private static final Field<GroupsDefinition, Map<String, Measure>> MEASURES = PART.field(
                    "measures",
                    FieldTypes.byName(measure()),
                    GroupsDefinition::measures,
                    "Numbers calculated for each group; a measure may use earlier ones.")
            .usual(Map.of());
    private static final Field<GroupsDefinition, ExpectedGroups> EXPECTED_GROUPS = PART.field(
            "expected_groups",
            new ScalarType<>(
                    Shape.text("name of a query, or `last 5 checks`"), GroupsFields::expected, GroupsFields::text),
            GroupsDefinition::from,
            "Groups that are evaluated even if they have no rows.");

    private GroupsFields() {}

    static @Nullable GroupsDefinition read(Fields top) {
        boolean grouped = top.has(PER.name());
        var groups = new GroupsDefinition(PER.in(top), MEASURES.in(top), EXPECTED_GROUPS.orNull(top));
        if (grouped) {
            if (groups.from() != null && groups.per().isEmpty())
                top.refuse(
                        EXPECTED_GROUPS.name(), "the whole result is one group, which is always there; leave this out");
            return groups;
        }
        if (!groups.measures().isEmpty()) refuseWithoutPer(top, MEASURES);
        if (groups.from() != null) refuseWithoutPer(top, EXPECTED_GROUPS);
        return null;
    }

    private static void refuseWithoutPer(Fields top, Field<?, ?> field) {
        top.refuse(
                field.name(),
                field.name() + " belongs to a rule over groups; write per: [column], or per: [] for the whole result");
    }

    private static FieldType<Measure> measure() {
        var part = FieldTypes.part(MEASURE, GroupsFields::measure);
        return FieldType.of(
                Conditions.EXPRESSION.shape().or(part.shape()),
                (fields, name) -> fields.isMapping(name)
                        ? part.read(fields, name)
                                .filter(measure -> !measure.value().isEmpty())
                        : Conditions.EXPRESSION.read(fields, name).map(value -> new Measure(value, null, null)),
                measure -> measure.label() == null && measure.unit() == null ? measure.value() : part.print(measure));
    }

    private static Measure measure(Fields fields) {
        return new Measure(
                VALUE.read(fields).orElse(""),
                LABEL.read(fields).filter(label -> !label.isBlank()).orElse(null),
                UNIT.orNull(fields));
    }

    private static ExpectedGroups expected(String text) {
        var last = LAST_CHECKS.matcher(text.strip());
        if (last.matches() && Integer.parseInt(last.group(1)) > 0)
            return new ExpectedGroups.OfLastChecks(Integer.parseInt(last.group(1)));
        if (Names.isOne(text)) return new ExpectedGroups.OfQuery(text);
        throw InvalidDefinitionException.of(
                "\"" + text + "\" is neither the name of a query nor, such as, last 5 checks");
    }

    private static String text(ExpectedGroups groups) {
        return switch (groups) {
            case ExpectedGroups.OfQuery(var query) -> query;
            case ExpectedGroups.OfLastChecks(int checks) -> "last " + checks + " checks";
        };
    }
}
