package dev.oddsentry.core.condition;

import dev.oddsentry.core.condition.Expression.Aggregate;
import dev.oddsentry.core.condition.Expression.History;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.value.Column;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Groups of a query's rows as conditions see them. Read the measures first, then the conditions; each aggregate and each look at
 * history that they hold becomes one more column of the group's row, so that it is calculated once and can be shown and marked.
 */
public final class Grouping {
    private final Columns rows;
    private final int[] per;
    private final Thresholds thresholds;
    private final List<Column> columns = new ArrayList<>();
    private final List<Column> names = new ArrayList<>();
    private final Map<Expression, Integer> slots = new HashMap<>();
    private final Layout layout = new GroupLayout();
    private final Map<String, Expression> measures = new LinkedHashMap<>();
    private final List<Step> steps = new ArrayList<>();
    private final Set<Integer> shown = new LinkedHashSet<>();

    /** A reading whose places and types a step was found in. */
    private record Read(Expression tree, TextPositions places, Map<Expression, Type> types) {}

    private record Step(
            Expression tree, Read from, @Nullable String measure) {}

    /**
     * What is measured of each group, check by check.
     *
     * @param text as people read it
     * @param meaning the text with the measures that it names spelt out: another meaning is another series
     */
    public record Measured(String text, String meaning) {}

    /** @param per the positions of the columns whose values make a group; none for the whole result */
    public Grouping(Columns rows, int[] per, Thresholds thresholds) {
        this.rows = rows;
        this.per = per.clone();
        this.thresholds = thresholds;
        for (int index : per) {
            shown.add(columns.size());
            columns.add(rows.at(index));
            names.add(rows.at(index));
        }
    }

    /** Adds a named measure; its text may name those added before. */
    public List<Problem> measure(String name, String text) {
        var places = new TextPositions(text);
        Expression tree;
        try {
            tree = Parser.parse(text, places);
        } catch (ConditionSyntaxException stopped) {
            return List.of(stopped.problem());
        }
        var checker = new TypeChecker(scope(), places);
        var types = checker.checkMeasure(tree);
        if (checker.problems().stream().anyMatch(Problem::stopsSave)) return checker.problems();
        var read = new Read(tree, places, types);
        prepare(tree, read);
        measures.put(name, tree);
        Type type = TypeChecker.typeOf(types, tree);
        shown.add(columns.size());
        add(new Step(tree, read, name), new Column(name, type));
        names.add(new Column(name, type));
        return checker.problems();
    }

    /** Reads a condition on the group's row. The numbers it looks at are shown; that it goes on so is said by its being an exception. */
    public Reading condition(String text) {
        var before = columns.size();
        var reading = Condition.read(text, scope(), layout, this::prepare);
        for (int i = before; i < columns.size(); i++) {
            if (columns.get(i).type() != Type.TRUTH) shown.add(i);
        }
        return reading;
    }

    /** What may come next in a condition on the group. */
    public Completion.CompletionOptions complete(String text, int offset) {
        return Completion.at(text, offset, scope());
    }

    private Scope scope() {
        return new Scope(Scope.Place.GROUP, new Columns(names), rows, thresholds);
    }

    private void prepare(Expression tree, TextPositions places, Map<Expression, Type> types) {
        prepare(tree, new Read(tree, places, types));
    }

    /** Gives every aggregate and every look at history in a tree its column, what it rests on first. */
    private void prepare(Expression tree, Read from) {
        boolean known = slots.containsKey(tree);
        if (tree instanceof Aggregate) {
            if (!known) addUnnamed(tree, from);
            return;
        }
        Trees.children(tree).forEach(child -> prepare(child, from));
        if (tree instanceof History && !known) addUnnamed(tree, from);
    }

    private void addUnnamed(Expression tree, Read from) {
        slots.put(tree, columns.size());
        add(new Step(tree, from, null), new Column(Printer.print(tree), TypeChecker.typeOf(from.types, tree)));
    }

    private void add(Step step, Column column) {
        steps.add(step);
        columns.add(column);
    }

    /** Of a group's row. */
    private final class GroupLayout implements Layout {
        @Override
        public OptionalInt slotOf(Expression node) {
            return Grouping.this.slotOf(node);
        }

        @Override
        public boolean isUuid(Expression node) {
            var slot = slotOf(node);
            return slot.isPresent() && columns.get(slot.getAsInt()).nature() == Column.Nature.UUID;
        }
    }

    private OptionalInt slotOf(Expression node) {
        Integer slot = slots.get(node);
        if (slot != null) return OptionalInt.of(slot);
        if (!(node instanceof Expression.ColumnName(var name, boolean quoted))) return OptionalInt.empty();
        var named = new Columns(names).indexOf(name, quoted);
        if (named.isEmpty()) return named;
        return new Columns(columns).indexOf(names.get(named.getAsInt()).name(), true);
    }

    /** The columns of the group's row. */
    public Columns columns() {
        return new Columns(columns);
    }

    /** Those that an extract shows unless it says otherwise: not the parts that only named measures are made of. */
    public List<String> shown() {
        return shown.stream().map(index -> columns.get(index).name()).toList();
    }

    public boolean isMeasure(String column) {
        return measures.containsKey(column);
    }

    /** True where the same rows may give another answer at another slot. */
    public boolean isRelative() {
        return steps.stream().anyMatch(step -> Trees.isRelative(step.tree));
    }

    /** How far back a series is looked at. */
    public record Need(int points, Span stretch) {}

    /** What the conditions look back at, and how far; empty where they do not. */
    public Map<Measured, Need> needs() {
        var needs = new LinkedHashMap<Measured, Need>();
        for (var step : steps) {
            if (!(step.tree instanceof History history)) continue;
            int points = history.points() == null ? 1 : history.points();
            var need = new Need(points, history.within() == null ? Span.ZERO : history.within());
            needs.merge(measured(history.measured()), need, Grouping::further);
        }
        return needs;
    }

    /** Everything whose values are kept: what conditions look back at, and every measure that is a number. */
    public Set<Measured> recorded() {
        var recorded = new LinkedHashSet<>(needs().keySet());
        for (var step : steps) {
            boolean number = TypeChecker.typeOf(step.from.types, step.tree) == Type.NUMBER;
            if (step.measure != null && number) recorded.add(measured(new Expression.ColumnName(step.measure, false)));
        }
        return recorded;
    }

    private static Need further(Need a, Need b) {
        boolean longer = roughly(a.stretch).compareTo(roughly(b.stretch)) >= 0;
        return new Need(Math.max(a.points, b.points), longer ? a.stretch : b.stretch);
    }

    /** A month as 31 days: which of two is longer need not be exact. */
    private static Duration roughly(Span span) {
        return span.clock().plusDays(span.days() + 31L * span.months());
    }

    private Measured measured(Expression tree) {
        String text = Printer.print(tree);
        var used = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        Trees.nodes(tree).forEach(node -> {
            if (node instanceof Expression.ColumnName(var name, var _)) used.add(name);
        });
        String spelt = measures.entrySet().stream()
                .filter(measure -> used.contains(measure.getKey()))
                .map(measure -> "; " + measure.getKey() + ": "
                        + measured(measure.getValue()).meaning())
                .collect(Collectors.joining());
        return new Measured(text, text + spelt);
    }

    public GroupEvaluator at(Moment moment) {
        var parts = steps.stream().map(step -> part(step, moment)).toList();
        return new GroupEvaluator(moment, per.length, parts);
    }

    private GroupEvaluator.Part part(Step step, Moment moment) {
        var ofGroup = compiler(step.from, layout, moment);
        if (step.measure != null) return measurePart(step, ofGroup);
        return switch (step.tree) {
            case Aggregate aggregate ->
                ofRows(aggregate, compiler(step.from, new RowLayout(rows), moment), step, moment);
            case History history ->
                new GroupEvaluator.Part.OfHistory(
                        history,
                        ofGroup.compile(history.measured()),
                        history.target() == null ? null : ofGroup.compile(history.target()),
                        measured(history.measured()));
            default -> throw new IllegalStateException("no column of its own: " + step.tree);
        };
    }

    private GroupEvaluator.Part measurePart(Step step, Compiler ofGroup) {
        boolean number = TypeChecker.typeOf(step.from.types, step.tree) == Type.NUMBER;
        var recorded = number ? measured(new Expression.ColumnName(String.valueOf(step.measure), false)) : null;
        return new GroupEvaluator.Part.Measure(ofGroup.compile(step.tree), recorded);
    }

    private static GroupEvaluator.Part ofRows(Aggregate tree, Compiler ofRow, Step step, Moment moment) {
        var argument = tree.argument();
        Type type = argument == null ? Type.TRUTH : TypeChecker.typeOf(step.from.types, argument);
        return new GroupEvaluator.Part.OfRows(
                tree,
                argument == null ? null : ofRow.compile(argument),
                tree.filter() == null ? null : ofRow.compile(tree.filter()),
                new Ordering(type, type, new Moments(moment)).total());
    }

    private Compiler compiler(Read from, Layout layout, Moment moment) {
        return new Compiler(layout, from.types, from.places, moment, thresholds);
    }
}
