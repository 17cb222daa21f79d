package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.MemoryDefinition.SafetyLimits;
import dev.oddsentry.core.definition.RuleDefinition.Mode;
import dev.oddsentry.core.document.Field;
import dev.oddsentry.core.document.FieldTypes;
import dev.oddsentry.core.document.Fields;
import dev.oddsentry.core.document.Part;
import dev.oddsentry.core.document.ScalarType;
import dev.oddsentry.core.document.Shape;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.time.Span;
import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;

/** What a rule remembers of its findings, and which updates it reports. */
final class MemoryFields {
    private static final List<UpdateKind> REPORTED_BY_DEFAULT =
            List.of(UpdateKind.NEW, UpdateKind.RETURNED, UpdateKind.WORSENED);
    /** Reminders are asked for by how often. */
    private static final UpdateKind[] REPORTABLE =
            EnumSet.complementOf(EnumSet.of(UpdateKind.REMINDER)).toArray(UpdateKind[]::new);

    private static final int ALL = 100;
    private static final int MOST_OPENED = 999_999_999;
    private static final Pattern PERCENT = Pattern.compile("(\\d{1,3})\\s*%");
    private static final ScalarType<Integer> SHARE = new ScalarType<>(
            Shape.scalar("percentage, such as `50 %`"), MemoryFields::percent, percent -> percent + " %");

    static final Part<MemoryDefinition> PART =
            new Part<>("memory", "What the rule remembers of its findings, and which updates it reports.");

    private static final Field<MemoryDefinition, Mode> MODE = PART.field(
                    "mode",
                    FieldTypes.choice(Mode.values()),
                    MemoryDefinition::mode,
                    "`incremental` reports only updates, `full` reports all open findings each time, `plain` sends the rows as they are: a plain report has no severities, findings or updates.")
            .usual(Mode.INCREMENTAL)
            .alwaysWritten();
    private static final Field<MemoryDefinition, List<String>> KEY = PART.field(
                    "key",
                    FieldTypes.TEXT.described("column").list(),
                    MemoryDefinition::key,
                    "Key columns: rows with the same values are one finding. An incremental rule needs them unless it has `per`.")
            .usual(List.of());
    private static final Field<MemoryDefinition, List<String>> WATCH = PART.field(
                    "watch",
                    FieldTypes.TEXT.described("column").list(),
                    MemoryDefinition::watch,
                    "Columns whose changes count as *changed*.")
            .usual(List.of())
            .usually("the columns that the conditions read");
    private static final Field<MemoryDefinition, List<UpdateKind>> REPORT = PART.field(
                    "report",
                    FieldTypes.choice(REPORTABLE).list(),
                    memory -> memory.mode() == Mode.PLAIN
                            ? null
                            : memory.report().stream().sorted().toList(),
                    "The kinds of update that are reported.")
            .usual(REPORTED_BY_DEFAULT)
            .alwaysWritten();
    private static final Field<MemoryDefinition, Absence> ABSENCE = PART.field(
                    "absence",
                    FieldTypes.choice(Absence.values()),
                    MemoryDefinition::absence,
                    "What happens to a finding whose row is no longer in the result.")
            .usually("`ages_out` if a parameter or the condition moves with the slot, else `clears`");
    private static final Field<MemoryDefinition, MinimumDuration> OPEN_AFTER = PART.field(
                    "open_after",
                    Durations.CHECKS_OR_TIME,
                    MemoryDefinition::openAfter,
                    "How long an exception must last to open a finding.")
            .usual(MinimumDuration.NONE)
            .usually("at once");
    private static final Field<MemoryDefinition, MinimumDuration> CLEAR_AFTER = PART.field(
                    "clear_after",
                    Durations.CHECKS_OR_TIME,
                    MemoryDefinition::clearAfter,
                    "How long an open finding must be absent to clear.")
            .usual(MinimumDuration.NONE)
            .usually("at once");
    private static final Field<MemoryDefinition, Integer> CONFIRM_AFTER = PART.field(
                    "confirm_after",
                    Durations.CHECKS,
                    MemoryDefinition::confirmAfter,
                    "How many checks a finding must stay cleared or improved before that counts.")
            .usual(0)
            .usually("at once");
    private static final Field<MemoryDefinition, Span> REMIND_EVERY = PART.field(
                    "remind_every",
                    Durations.CALENDAR_SPAN,
                    MemoryDefinition::remindEvery,
                    "How long after its last report an open finding is reported again.")
            .usually("never");
    private static final Field<MemoryDefinition, Integer> MAX_CLEARED = PART.field(
                    "max_cleared",
                    SHARE,
                    memory -> Objects.requireNonNullElse(memory.safetyLimits().maxClearedPercent(), ALL),
                    "A check that would clear a larger share of the open findings (from " + SafetyLimits.LEAST_CLEARED
                            + " findings) awaits approval. `100 %`: no limit.")
            .usual(SafetyLimits.USUAL_PERCENT);
    private static final Field<MemoryDefinition, Integer> MAX_OPENED = PART.field(
                    "max_opened",
                    FieldTypes.whole(1, MOST_OPENED),
                    memory -> memory.safetyLimits().maxOpened(),
                    "A check that would open more findings awaits approval.")
            .usually("no limit");
    private static final Field<MemoryDefinition, Span> FORGET_AFTER = PART.field(
                    "forget_after",
                    Durations.SPAN,
                    MemoryDefinition::forgetAfter,
                    "How long an aged-out finding is kept.")
            .usually("the operator's setting");
    private static final Field<MemoryDefinition, FirstCheck> FIRST_CHECK = PART.field(
                    "first_check",
                    FieldTypes.choice(FirstCheck.values()),
                    memory -> memory.mode() == Mode.PLAIN ? null : memory.firstCheck(),
                    "Whether the first check reports what it finds, or records it as known.")
            .usual(FirstCheck.REPORT)
            .alwaysWritten();

    private MemoryFields() {}

    static MemoryDefinition read(Fields fields) {
        var report = REPORT.in(fields);
        return new MemoryDefinition(
                MODE.in(fields),
                KEY.in(fields),
                WATCH.in(fields),
                report.isEmpty() ? Set.copyOf(REPORTED_BY_DEFAULT) : EnumSet.copyOf(report),
                ABSENCE.orNull(fields),
                OPEN_AFTER.in(fields),
                CLEAR_AFTER.in(fields),
                CONFIRM_AFTER.in(fields),
                REMIND_EVERY.orNull(fields),
                safetyLimits(fields),
                FIRST_CHECK.in(fields),
                FORGET_AFTER.orNull(fields));
    }

    private static SafetyLimits safetyLimits(Fields fields) {
        int cleared = MAX_CLEARED.in(fields);
        return new SafetyLimits(cleared == ALL ? null : cleared, MAX_OPENED.orNull(fields));
    }

    private static int percent(String text) {
        var match = PERCENT.matcher(text.strip());
        int percent = match.matches() ? Integer.parseInt(match.group(1)) : 0;
        if (percent >= 1 && percent <= ALL) return percent;
        throw InvalidDefinitionException.of("\"" + text + "\" is not a percentage. Example: 50 % (100 %: no limit)");
    }
}
