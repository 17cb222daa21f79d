package dev.oddsentry.core.judging;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.definition.FieldPlaces;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Columns;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A rule checked against the columns of its query; makes a fresh judge for each check. */
public final class RuleJudges {
    private final @Nullable Condition exceptions;
    private final List<CheckedBand> bands;
    private final int[] key;
    private final int[] watch;

    private record CheckedBand(
            RuleDefinition.Band band, @Nullable Condition condition) {}

    private RuleJudges(@Nullable Condition exceptions, List<CheckedBand> bands, int[] key, int[] watch) {
        this.exceptions = exceptions;
        this.bands = bands;
        this.key = key;
        this.watch = watch;
    }

    /** @param warnings what is doubtful though it can be judged */
    public record Checked(RuleJudges judges, List<Problem> warnings) {}

    /**
     * @param places where the rule's fields stand, if it comes from a text; null otherwise
     * @throws InvalidDefinitionException with every problem of the rule against these columns
     */
    public static Checked check(RuleDefinition rule, Columns columns, @Nullable FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        var reader = new FieldReader(columns, places, problems);
        Condition exceptions = rule.exceptions() == null ? null : reader.condition("exceptions", rule.exceptions());
        var bands = new ArrayList<CheckedBand>();
        for (int i = 0; i < rule.severity().size(); i++) {
            var band = rule.severity().get(i);
            String field = "severity[" + i + "]." + band.severity().word();
            bands.add(
                    new CheckedBand(band, band.condition() == null ? null : reader.condition(field, band.condition())));
        }
        int[] key = reader.columns("memory.key", rule.memory().key());
        int[] watched = reader.columns("memory.watch", rule.memory().watch());
        reader.columns("delivery.columns", rule.delivery().columns());
        if (problems.stream().anyMatch(Problem::isError)) throw new InvalidDefinitionException(problems);
        int[] watch = watched.length > 0 ? watched : columnsRead(exceptions, bands);
        return new Checked(new RuleJudges(exceptions, bands, key, watch), problems);
    }

    private static int[] columnsRead(@Nullable Condition exceptions, List<CheckedBand> bands) {
        Set<Integer> read = new LinkedHashSet<>();
        if (exceptions != null) read.addAll(exceptions.columnsRead());
        for (var band : bands) {
            if (band.condition() != null) read.addAll(band.condition().columnsRead());
        }
        return read.stream().mapToInt(Integer::intValue).sorted().toArray();
    }

    public RuleJudge at(Moment moment, Digester digester) {
        var judged = new ArrayList<RuleJudge.JudgedBand>();
        for (var each : bands) {
            judged.add(new RuleJudge.JudgedBand(
                    each.band().severity(),
                    each.condition() == null ? null : each.condition().at(moment)));
        }
        return new RuleJudge(exceptions == null ? null : exceptions.at(moment), judged, key, watch, digester);
    }

    /** True where a condition's answer for the same row changes with the slot. */
    private boolean isRelative() {
        return exceptions != null && exceptions.isRelative();
    }

    /** What absence means for this rule: as it says, else passed by where anything moves with the slot. */
    public Absence absence(RuleDefinition rule, boolean parametersMove) {
        Absence said = rule.memory().absence();
        if (said != null) return said;
        return parametersMove || isRelative() ? Absence.PASSED_BY : Absence.PUT_RIGHT;
    }

    private record FieldReader(Columns columns, @Nullable FieldPlaces places, List<Problem> problems) {

        @Nullable
        Condition condition(String field, String text) {
            var reading = Condition.read(text, columns);
            reading.problems().forEach(problem -> problems.add(located(field, problem)));
            return reading.condition().orElse(null);
        }

        int[] columns(String field, List<String> names) {
            var found = new ArrayList<Integer>();
            for (int i = 0; i < names.size(); i++) {
                var index = columns.indexOf(names.get(i), false);
                String itemField = field + "[" + i + "]";
                if (index.isEmpty()) problems.add(located(itemField, unknown(names.get(i))));
                else found.add(index.getAsInt());
            }
            return found.stream().mapToInt(Integer::intValue).toArray();
        }

        private Problem unknown(String name) {
            String message =
                    "unknown column \"" + name + "\"; the query returns: " + String.join(", ", columns.names());
            return Problem.error(message, "", null)
                    .suggesting(Nearest.to(name, columns.names()).orElse(null));
        }

        private Problem located(String field, Problem problem) {
            return places == null ? problem.within(field, problem.place()) : places.locate(field, problem);
        }
    }
}
