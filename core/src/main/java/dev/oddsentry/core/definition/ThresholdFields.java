package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.Definition.Kind;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import java.util.List;

/** A threshold's document. Its values are not in it. */
final class ThresholdFields {
    static final Part<ThresholdDefinition> PART = CommonFields.sharedTable(
            Kind.THRESHOLD, "A named number for conditions. Its values are set separately, with dates and reasons.");

    private static final Field<ThresholdDefinition, String> UNIT =
            PART.field("unit", FieldTypes.TEXT, ThresholdDefinition::unit, "Shown after the value.");
    private static final Field<ThresholdDefinition, String> DESCRIPTION =
            PART.field("description", FieldTypes.TEXT, ThresholdDefinition::description, "What the number means.");
    private static final Field<ThresholdDefinition, List<String>> KEY = PART.field(
                    "key",
                    FieldTypes.TEXT.list(),
                    ThresholdDefinition::key,
                    "What the threshold has values for, such as `route`.")
            .usual(List.of())
            .usually("one value for all");

    private ThresholdFields() {}

    static ThresholdDefinition read(Fields top) {
        var common = CommonFields.read(top);
        return new ThresholdDefinition(
                common.id(),
                common.name(),
                common.title(),
                CommonFields.owner(top),
                CommonFields.visibleTo(top),
                UNIT.orNull(top),
                DESCRIPTION.orNull(top),
                KEY.in(top));
    }
}
