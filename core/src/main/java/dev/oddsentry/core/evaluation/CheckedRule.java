package dev.oddsentry.core.evaluation;

import dev.oddsentry.core.condition.Condition;
import dev.oddsentry.core.condition.EmptyTexts;
import dev.oddsentry.core.condition.Grouping;
import dev.oddsentry.core.condition.WorseOrder;
import dev.oddsentry.core.definition.LayoutDefinition;
import dev.oddsentry.core.definition.RuleDefinition;
import dev.oddsentry.core.document.FieldPlaces;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.memory.Absence;
import dev.oddsentry.core.memory.UpdateKind;
import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Nearest;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.schedule.Coverage;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Columns;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/** A rule checked against the columns of its query; makes a new evaluator for each check. */
public final class CheckedRule {
    private final Columns columns;
    private final @Nullable Grouping grouping;
    private final int[] per;
    private final @Nullable Condition exceptions;
    private final List<CheckedBand> bands;
    private final int[] key;
    private final int[] watch;

    private record CheckedBand(
            RuleDefinition.SeverityLevel band, @Nullable Condition condition) {}

    private CheckedRule(
            Columns columns,
            @Nullable Grouping grouping,
            int[] per,
            @Nullable Condition exceptions,
            List<CheckedBand> bands,
            int[] key,
            int[] watch) {
        this.columns = columns;
        this.grouping = grouping;
        this.per = per;
        this.exceptions = exceptions;
        this.bands = bands;
        this.key = key;
        this.watch = watch;
    }

    /** @param warnings what is doubtful though it can be evaluated */
    public record Checked(CheckedRule conditions, List<Problem> warnings) {}

    /**
     * @param rows the columns of the rule's query
     * @param places where the rule's fields stand, if it comes from a text; null otherwise
     * @throws InvalidDefinitionException with every problem of the rule against these columns
     */
    public static Checked check(
            RuleDefinition rule, Columns rows, Thresholds thresholds, @Nullable FieldPlaces places) {
        var problems = new ArrayList<Problem>();
        var reader = new FieldReader(rows, thresholds, places, problems);
        int[] per = rule.groups() == null
                ? new int[0]
                : reader.columns("per", rule.groups().per(), rows);
        var grouping = rule.groups() == null ? null : reader.grouping(rule.groups(), per);
        Condition exceptions =
                rule.exceptions() == null ? null : reader.condition("exceptions", rule.exceptions(), grouping);
        var bands = new ArrayList<CheckedBand>();
        for (int i = 0; i < rule.severity().size(); i++) {
            var band = rule.severity().get(i);
            String field = "severity[" + i + "]." + band.severity().word();
            bands.add(new CheckedBand(
                    band, band.condition() == null ? null : reader.condition(field, band.condition(), grouping)));
        }
        Columns columns = grouping == null ? rows : grouping.columns();
        int[] key = reader.columns("memory.key", rule.memory().key(), columns);
        int[] watched = reader.columns("memory.watch", rule.memory().watch(), columns);
        reader.layout(rule.delivery().layout(), columns);
        var split = rule.delivery().split();
        int[] splitBy = reader.columns("delivery.split_by", split == null ? List.of() : List.of(split.by()), columns);
        if (problems.stream().anyMatch(Problem::stopsSave)) throw new InvalidDefinitionException(problems);
        int[] decided = watched.length > 0 ? watched : usuallyWatched(rule, columns, exceptions, bands);
        reader.refuseChangedWithoutWatch(
                rule,
                decided,
                grouping == null ? key : IntStream.range(0, per.length).toArray());
        if (problems.stream().anyMatch(Problem::stopsSave)) throw new InvalidDefinitionException(problems);
        // With another value of the split's column a finding is another audience's, so that column is watched in any
        // case.
        int[] watch = IntStream.concat(IntStream.of(decided), IntStream.of(splitBy))
                .distinct()
                .toArray();
        int[] identity = grouping == null ? key : IntStream.range(0, per.length).toArray();
        return new Checked(new CheckedRule(columns, grouping, per, exceptions, bands, identity, watch), problems);
    }

    /** The columns that conditions read; without a condition, those that are sent, since any of them may have changed. */
    private static int[] usuallyWatched(
            RuleDefinition rule, Columns columns, @Nullable Condition exceptions, List<CheckedBand> bands) {
        int[] read = columnsRead(exceptions, bands);
        if (exceptions != null) return read;
        var shown = rule.delivery().layout().columns();
        IntStream sent = shown.isEmpty()
                ? IntStream.range(0, columns.size())
                : shown.stream().mapToInt(each -> columns.require(each.column()));
        return IntStream.concat(IntStream.of(read), sent).distinct().sorted().toArray();
    }

    private static int[] columnsRead(@Nullable Condition exceptions, List<CheckedBand> bands) {
        Set<Integer> read = new LinkedHashSet<>();
        if (exceptions != null) read.addAll(exceptions.columnsRead());
        for (var band : bands) {
            if (band.condition() != null) read.addAll(band.condition().columnsRead());
        }
        return read.stream().mapToInt(Integer::intValue).sorted().toArray();
    }

    public RuleEvaluator at(Moment moment, Digester digester) {
        var evaluated = new ArrayList<RuleEvaluator.LevelCondition>();
        for (var each : bands) {
            evaluated.add(new RuleEvaluator.LevelCondition(
                    each.band().severity(),
                    each.condition() == null ? null : each.condition().at(moment)));
        }
        var groups = grouping == null ? null : new GroupRows(grouping.at(moment), per, digester);
        var evaluator = exceptions == null ? null : exceptions.at(moment);
        return new RuleEvaluator(columns, groups, evaluator, evaluated, key, watch, worseOrder(), digester);
    }

    private List<WorseOrder> worseOrder() {
        var conditions = Stream.concat(
                Stream.ofNullable(exceptions),
                bands.stream().map(CheckedBand::condition).filter(Objects::nonNull));
        var found = new LinkedHashMap<Integer, WorseOrder>();
        conditions.forEach(each -> each.worseOrder().forEach(order -> found.putIfAbsent(order.column(), order)));
        return List.copyOf(found.values());
    }

    /** The columns that the condition of exceptions compares with a bound, and on which side of it exceptions are. */
    public List<WorseOrder> bounds() {
        return exceptions == null ? List.of() : exceptions.worseOrder();
    }

    /** Everything whose values are kept for later checks. */
    public Set<Grouping.Measured> recorded() {
        return grouping == null ? Set.of() : grouping.recorded();
    }

    /** A watch over the rows for texts that the conditions compare columns with. */
    public SeenTexts seenTexts() {
        var watched = new ArrayList<SeenTexts.Watched>();
        if (grouping == null) {
            if (exceptions != null) addTexts(watched, "exceptions", exceptions);
            for (int i = 0; i < bands.size(); i++) {
                var condition = bands.get(i).condition();
                String field =
                        "severity[" + i + "]." + bands.get(i).band().severity().word();
                if (condition != null) addTexts(watched, field, condition);
            }
        }
        var asked =
                grouping != null || exceptions == null ? List.<EmptyTexts.Asked>of() : exceptions.missingTexts(columns);
        return new SeenTexts(columns, watched, asked);
    }

    private static void addTexts(List<SeenTexts.Watched> watched, String field, Condition condition) {
        condition.comparedTexts().forEach(compared -> watched.add(new SeenTexts.Watched(field, compared)));
    }

    /** The exceptions' condition with one part widened to what has no value in a column; see {@link Condition#countingMissing}. */
    public Optional<String> countingMissing(int part, String column) {
        return Optional.ofNullable(exceptions).flatMap(condition -> condition.countingMissing(part, column));
    }

    /** The windows of time that every exception lies in, by column. */
    public Map<String, Coverage.Stretch> windowsAt(Moment moment) {
        return exceptions == null ? Map.of() : exceptions.windowsAt(moment);
    }

    /** The columns of the query by whose coming time rows are chosen, and which tell no finding from another. */
    public Set<String> comingBesideKey() {
        if (exceptions == null || grouping != null) return Set.of();
        var coming = new LinkedHashSet<>(exceptions.comingIn());
        for (int column : key) coming.remove(columns.at(column).name());
        return coming;
    }

    /** The columns of what is evaluated: the query's, or those of the groups. */
    public Columns columns() {
        return columns;
    }

    /** What the conditions look back at, and how far. */
    public Map<Grouping.Measured, Grouping.Need> needs() {
        return grouping == null ? Map.of() : grouping.needs();
    }

    /** The columns that an extract shows unless the rule says which. */
    public List<String> shown() {
        return grouping == null ? columns.names() : grouping.shown();
    }

    /** True where a condition's answer for the same row changes with the slot. */
    private boolean isRelative() {
        return (exceptions != null && exceptions.isRelative()) || (grouping != null && grouping.isRelative());
    }

    /** What absence means for this rule: as it says, else passed by where anything moves with the slot. */
    public Absence absence(RuleDefinition rule, boolean parametersMove) {
        Absence said = rule.memory().absence();
        if (said != null) return said;
        return parametersMove || isRelative() ? Absence.AGES_OUT : Absence.CLEARS;
    }

    private record FieldReader(
            Columns rows, Thresholds thresholds, @Nullable FieldPlaces places, List<Problem> problems) {

        /** What is looked at for changes must be able to change: a key cannot, since another key is another finding. */
        void refuseChangedWithoutWatch(RuleDefinition rule, int[] watched, int[] identity) {
            if (rule.memory().mode() != RuleDefinition.Mode.INCREMENTAL) return;
            if (!rule.memory().report().contains(UpdateKind.CHANGED)) return;
            boolean any = IntStream.of(watched)
                    .anyMatch(column -> IntStream.of(identity).noneMatch(key -> key == column));
            if (any) return;
            problems.add(located(
                    "memory.report",
                    Problem.error(
                            "changed is reported, but no column is watched that can change. Name some: memory: watch: [status]",
                            "",
                            null)));
        }

        Grouping grouping(RuleDefinition.GroupsDefinition groups, int[] per) {
            var grouping = new Grouping(rows, per, thresholds);
            groups.measures().forEach((name, measure) -> {
                boolean mapping = measure.label() != null || measure.unit() != null;
                String field = "measures." + name + (mapping ? ".value" : "");
                if (rows.indexOf(name, false).isPresent()) {
                    problems.add(located(
                            field,
                            Problem.error(
                                    "the query has a column \"" + name + "\"; give the measure another name",
                                    "",
                                    null)));
                    return;
                }
                grouping.measure(name, measure.value()).forEach(problem -> problems.add(located(field, problem)));
            });
            return grouping;
        }

        @Nullable
        Condition condition(String field, String text, @Nullable Grouping grouping) {
            var reading = grouping == null ? Condition.read(text, rows, thresholds) : grouping.condition(text);
            reading.problems().forEach(problem -> problems.add(located(field, problem)));
            return reading.condition().orElse(null);
        }

        int[] columns(String field, List<String> names, Columns among) {
            var found = new ArrayList<Integer>();
            for (int i = 0; i < names.size(); i++) {
                var index = among.indexOf(names.get(i), false);
                String itemField = field + "[" + i + "]";
                if (index.isEmpty()) problems.add(located(itemField, unknown(names.get(i), among)));
                else found.add(index.getAsInt());
            }
            return found.stream().mapToInt(Integer::intValue).toArray();
        }

        void layout(LayoutDefinition layout, Columns among) {
            boolean bare = layout.isOfBareColumns();
            for (int i = 0; i < layout.columns().size(); i++) {
                var shown = layout.columns().get(i);
                String field = bare ? "delivery.columns[" + i + "]" : "delivery.layout.columns[" + i + "].column";
                var index = among.indexOf(shown.column(), false);
                if (index.isEmpty()) problems.add(located(field, unknown(shown.column(), among)));
                else if (shown.format() != null
                        && !shown.format().fits(among.at(index.getAsInt()).type()))
                    problems.add(located(
                            "delivery.layout.columns[" + i + "].format",
                            Problem.error(
                                    "the column " + shown.column() + " is "
                                            + among.at(index.getAsInt()).type().word() + ", which is not written as "
                                            + shown.format().pattern(),
                                    "",
                                    null)));
            }
            var all = layout.columns().isEmpty() ? among.names() : layout.names(LayoutDefinition.Part.COLUMNS);
            for (var part : List.of(LayoutDefinition.Part.SORT, LayoutDefinition.Part.GROUP_BY)) {
                var names = layout.names(part);
                for (int i = 0; i < names.size(); i++) {
                    String name = names.get(i);
                    String field = "delivery.layout." + part.code() + "[" + i + "]";
                    if (among.indexOf(name, false).isEmpty()) problems.add(located(field, unknown(name, among)));
                    else if (!all.contains(name))
                        problems.add(located(
                                field,
                                Problem.error("\"" + name + "\" is not among the columns that are shown", "", null)));
                }
            }
        }

        private Problem unknown(String name, Columns among) {
            String message = "unknown column \"" + name + "\"; there are: " + String.join(", ", among.names());
            return Problem.error(message, "", null)
                    .suggesting(Nearest.to(name, among.names()).orElse(null));
        }

        private Problem located(String field, Problem problem) {
            return places == null ? problem.within(field, problem.place()) : places.locate(field, problem);
        }
    }
}
