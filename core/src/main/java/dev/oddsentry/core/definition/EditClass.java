package dev.oddsentry.core.definition;

import dev.oddsentry.core.memory.PendingEffect;
import dev.oddsentry.core.memory.PendingEffect.EditEffect;
import dev.oddsentry.core.memory.PendingEffect.ReportChoice;
import java.util.HashMap;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** What an edit of a rule, or of its query, does to the memory of the rule, mildest first. */
public enum EditClass {
    /** Names, schedule, recipients, layout and texts. */
    NO_EFFECT,
    /** Other watched columns: the next good check takes fingerprints as they are. */
    OTHER_WATCHED_COLUMNS,
    /** Other conditions, bands, parameters or rows: other exceptions are found. */
    OTHER_CONDITIONS,
    /** Split by another column, or no longer: the new audiences have no reports yet, and existing findings are treated as known. */
    OTHER_AUDIENCES,
    /** Other columns identify findings or personal copies, so none is recognised. */
    OTHER_KEY_COLUMNS;

    public static EditClass of(RuleDefinition before, RuleDefinition after) {
        if (!Objects.equals(copiesBy(before), copiesBy(after))) return OTHER_KEY_COLUMNS;
        // A plain report has no findings to keep, and leaves none behind.
        if (before.isPlainReport() != after.isPlainReport()) return OTHER_KEY_COLUMNS;
        boolean identity = !before.key().equals(after.key()) || (before.groups() == null) != (after.groups() == null);
        if (identity) return OTHER_KEY_COLUMNS;
        if (!Objects.equals(splitBy(before), splitBy(after))) return OTHER_AUDIENCES;
        boolean evaluated = !Objects.equals(before.exceptions(), after.exceptions())
                || !before.severity().equals(after.severity())
                || !Objects.equals(before.groups(), after.groups())
                || !before.parameters().equals(after.parameters())
                || !Objects.equals(valuesOfCopies(before), valuesOfCopies(after))
                || !before.query().equals(after.query())
                || !before.zone().equals(after.zone());
        if (evaluated) return OTHER_CONDITIONS;
        return before.memory().watch().equals(after.memory().watch()) ? NO_EFFECT : OTHER_WATCHED_COLUMNS;
    }

    private static @Nullable String copiesBy(RuleDefinition rule) {
        return rule.copies() == null ? null : rule.copies().key();
    }

    private static @Nullable Map<String, String> valuesOfCopies(RuleDefinition rule) {
        return rule.copies() == null ? null : rule.copies().parameters();
    }

    private static @Nullable String splitBy(RuleDefinition rule) {
        return rule.delivery().split() == null ? null : rule.delivery().split().by();
    }

    /** Of a query that rules use: other rows, or none but other words for them. */
    public static EditClass of(QueryDefinition before, QueryDefinition after) {
        boolean rows = !before.sql().equals(after.sql())
                || !before.source().equals(after.source())
                || !asked(before).equals(asked(after));
        return rows ? OTHER_CONDITIONS : NO_EFFECT;
    }

    private record Asked(ParameterType type, @Nullable String preset, boolean several) {}

    /** What of the parameters reaches the source: their order, help and choices do not. */
    private static Map<String, Asked> asked(QueryDefinition query) {
        var asked = new HashMap<String, Asked>();
        query.parameters()
                .forEach((name, parameter) ->
                        asked.put(name, new Asked(parameter.type(), parameter.defaultValue(), parameter.multiple())));
        return asked;
    }

    /**
     * What the next good check of the rule must respect.
     *
     * @param treatAsKnown {@code true} to record new findings as reported without sending them
     */
    public PendingEffect pendingEffect(boolean treatAsKnown) {
        var report = treatAsKnown ? ReportChoice.TREAT_AS_KNOWN : ReportChoice.NONE;
        return switch (this) {
            case NO_EFFECT -> PendingEffect.NONE;
            case OTHER_WATCHED_COLUMNS -> PendingEffect.of(EditEffect.OTHER_COLUMNS);
            case OTHER_CONDITIONS -> new PendingEffect(EditEffect.OTHER_CONDITIONS, report);
            // Conditions may have changed with the split.
            case OTHER_AUDIENCES -> new PendingEffect(EditEffect.OTHER_CONDITIONS, ReportChoice.TREAT_AS_KNOWN);
            case OTHER_KEY_COLUMNS -> new PendingEffect(EditEffect.OTHER_KEY, report);
        };
    }
}
