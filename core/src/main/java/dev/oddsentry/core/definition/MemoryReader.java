package dev.oddsentry.core.definition;

import dev.oddsentry.core.definition.MemoryDefinition.Brakes;
import dev.oddsentry.core.definition.RuleDefinition.Mode;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.FirstCheck;
import dev.oddsentry.core.memory.MinimumDuration;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Span;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;

/** Reads what a rule says of its memory. */
final class MemoryReader {
    private static final Set<UpdateKind> REPORTED_BY_DEFAULT =
            EnumSet.of(UpdateKind.NEW, UpdateKind.RETURNED, UpdateKind.WORSENED);
    /** Reminders are asked for by how often. */
    private static final UpdateKind[] REPORTABLE =
            EnumSet.complementOf(EnumSet.of(UpdateKind.REMINDER)).toArray(UpdateKind[]::new);

    private static final int ALL = 100;

    private MemoryReader() {}

    static MemoryDefinition read(Fields fields, Fields top, DocumentText document) {
        boolean grouped = top.has("per");
        var report = fields.choices("report", REPORTABLE);
        var memory = new MemoryDefinition(
                fields.choice("mode", Mode.values()).orElse(Mode.INCREMENTAL),
                fields.texts("key"),
                fields.texts("watch"),
                report.isEmpty() ? REPORTED_BY_DEFAULT : EnumSet.copyOf(report),
                fields.choice("absence", Absence.values()).orElse(null),
                fields.parsed("open_after", MemoryReader::patience).orElse(MinimumDuration.NONE),
                fields.parsed("clear_after", MemoryReader::patience).orElse(MinimumDuration.NONE),
                fields.parsed("confirm_after", MemoryReader::guard).orElse(0),
                fields.parsed("remind_every", MemoryReader::remindEvery).orElse(null),
                brakes(fields),
                fields.choice("first_check", FirstCheck.values()).orElse(FirstCheck.REPORT),
                fields.parsed("forget_after", MemoryReader::forgetAfter).orElse(null));
        if (grouped && !memory.key().isEmpty()) {
            document.refuse("memory.key", "a rule with per: has one finding per group; remove key", null);
        }
        if (!grouped && memory.mode() == Mode.INCREMENTAL && memory.key().isEmpty()) {
            document.refuse("memory.key", "An incremental rule needs key columns: memory: key: [...]", null);
        }
        fields.refuseOthers();
        return memory;
    }

    private static int guard(String text) {
        if (patience(text) instanceof MinimumDuration.Checks(int number)) return number;
        throw refused("confirm_after takes a number of checks, such as 2 checks, not \"" + text + "\"");
    }

    private static Span remindEvery(String text) {
        if (patience(text) instanceof MinimumDuration.Elapsed elapsed) return elapsed.asCalendarDays();
        throw refused("remind_every takes a time, such as 3 days or 12 hours, not \"" + text + "\"");
    }

    private static Span forgetAfter(String text) {
        if (patience(text) instanceof MinimumDuration.Elapsed elapsed) return elapsed.time();
        throw refused("forget_after takes a time, such as 90 days, not \"" + text + "\"");
    }

    private static Brakes brakes(Fields fields) {
        var cleared = fields.parsed("max_cleared", MemoryReader::percent);
        return new Brakes(
                cleared.orElse(Brakes.USUAL_PERCENT) == ALL ? null : cleared.orElse(Brakes.USUAL_PERCENT),
                fields.parsed("max_opened", MemoryReader::count).orElse(null));
    }

    private static int percent(String text) {
        var match = Pattern.compile("(\\d{1,3})\\s*%").matcher(text.strip());
        int percent = match.matches() ? Integer.parseInt(match.group(1)) : 0;
        if (percent < 1 || percent > ALL)
            throw refused("\"" + text + "\" is not a percentage. Example: 50 % (100 %: no limit)");
        return percent;
    }

    private static int count(String text) {
        if (text.strip().matches("[1-9]\\d{0,8}")) return Integer.parseInt(text.strip());
        throw refused("\"" + text + "\" is not a whole number from 1");
    }

    private static MinimumDuration patience(String text) {
        try {
            return MinimumDuration.parse(text);
        } catch (IllegalArgumentException notOne) {
            throw refused(String.valueOf(notOne.getMessage()));
        }
    }

    private static InvalidDefinitionException refused(String message) {
        return new InvalidDefinitionException(List.of(Problem.error(message, "", null)));
    }
}
