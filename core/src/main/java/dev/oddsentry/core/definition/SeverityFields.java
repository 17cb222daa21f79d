package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.RuleDefinition.SeverityLevel;
import dev.oddsentry.core.document.FieldType;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.finding.Severity;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;

/** The severity levels of a rule: a list of conditions by severity, whose last entry is a bare severity. */
final class SeverityFields {
    static final List<SeverityLevel> EVERY_EXCEPTION_A_WARNING = List.of(new SeverityLevel(Severity.WARNING, null));
    static final ScalarType<Severity> SEVERITY = FieldTypes.choice(Severity.values());

    private static final Part<SeverityLevel> LEVEL = new Part<>("severity", "A severity and its condition.");

    static {
        for (var severity : Severity.values())
            LEVEL.field(
                    severity.word(),
                    Conditions.CONDITION,
                    level -> level.severity() == severity ? level.condition() : null,
                    "Exceptions for which this is true, and no entry before it, are " + severity.word() + ".");
    }

    static final FieldType<List<SeverityLevel>> LEVELS = FieldType.of(
            SEVERITY.shape().or(LEVEL.shape()).inList().or(SEVERITY.shape()),
            (fields, name) -> fields.has(name) ? Optional.of(read(fields, name)) : Optional.empty(),
            levels -> levels.stream().map(SeverityFields::print).toList());

    private SeverityFields() {}

    private static List<SeverityLevel> read(Fields fields, String name) {
        var levels = new ArrayList<SeverityLevel>();
        for (var item : fields.fieldsOfItems(name, Fields.ITSELF)) levels.addAll(level(item));
        boolean otherwiseLast = !levels.isEmpty()
                && levels.getLast().condition() == null
                && levels.stream().filter(level -> level.condition() == null).count() == 1;
        if (!levels.isEmpty() && !otherwiseLast && !fields.isRefused())
            fields.refuse(
                    name,
                    "the last entry, and only it, is a bare severity, such as warning: every other exception gets it");
        return levels.isEmpty() ? EVERY_EXCEPTION_A_WARNING : List.copyOf(levels);
    }

    private static Collection<SeverityLevel> level(Fields item) {
        if (item.has(Fields.ITSELF))
            return SEVERITY.read(item, Fields.ITSELF).map(severity -> new SeverityLevel(severity, null)).stream()
                    .toList();
        var levels = new ArrayList<SeverityLevel>();
        for (var severity : Severity.values())
            Conditions.CONDITION
                    .read(item, severity.word())
                    .ifPresent(condition -> levels.add(new SeverityLevel(severity, condition)));
        item.refuseOthers();
        return levels;
    }

    private static Object print(SeverityLevel level) {
        return level.condition() == null ? level.severity().word() : LEVEL.print(level);
    }
}
