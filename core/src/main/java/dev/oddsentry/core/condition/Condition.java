package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.InvalidDefinitionException;
import dev.oddsentry.core.problem.Place;
import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.schedule.Coverage;
import dev.oddsentry.core.threshold.Thresholds;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.time.Span;
import dev.oddsentry.core.time.Window;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** A condition checked against the columns of a query: read once, bound to a slot, then an evaluator of many rows. */
public final class Condition {
    private final Expression tree;
    private final Layout layout;
    private final TextPositions places;
    private final Map<Expression, Type> types;
    private final Thresholds thresholds;

    private Condition(
            Expression tree, Layout layout, TextPositions places, Map<Expression, Type> types, Thresholds thresholds) {
        this.tree = tree;
        this.layout = layout;
        this.places = places;
        this.types = types;
        this.thresholds = thresholds;
    }

    /** Called with each tree that was read without an error, before it is used. */
    interface Preparation {
        void prepare(Expression tree, TextPositions places, Map<Expression, Type> types);
    }

    /** The same where no threshold is known. */
    public static Reading read(String text, Columns columns) {
        return read(text, columns, Thresholds.NONE);
    }

    /** Reads and checks a text on a query's rows; the places of problems count from its start. */
    public static Reading read(String text, Columns columns, Thresholds thresholds) {
        return read(text, Scope.ofRows(columns, thresholds), new RowLayout(columns), (_, _, _) -> {});
    }

    static Reading read(String text, Scope scope, Layout layout, Preparation preparation) {
        var places = new TextPositions(text);
        Expression tree;
        try {
            tree = Parser.parse(text, places);
        } catch (ConditionSyntaxException stopped) {
            return new Reading(null, List.of(stopped.problem()));
        }
        var checker = new TypeChecker(scope, places);
        var types = checker.checkCondition(tree);
        boolean refused = checker.problems().stream().anyMatch(Problem::stopsSave);
        if (refused) return new Reading(null, checker.problems());
        preparation.prepare(tree, places, types);
        var problems = new ArrayList<>(checker.problems());
        problems.addAll(ConditionWarnings.of(tree, places, types));
        return new Reading(new Condition(tree, layout, places, types, scope.thresholds()), problems);
    }

    /** The problems of grammar alone, for a text whose query's columns are not known. */
    public static List<Problem> checkGrammar(String text) {
        try {
            Parser.parse(text, new TextPositions(text));
            return List.of();
        } catch (ConditionSyntaxException stopped) {
            return List.of(stopped.problem());
        }
    }

    /** The canonical text of a tree: reading it gives an equal tree. */
    public static String print(Expression tree) {
        return Printer.print(tree);
    }

    /** A text's tree from its grammar alone. */
    public static Expression parse(String text) {
        try {
            return Parser.parse(text, new TextPositions(text));
        } catch (ConditionSyntaxException stopped) {
            throw new InvalidDefinitionException(List.of(stopped.problem()));
        }
    }

    /** A window as it is written, such as {@code last 7 days}. */
    public static String print(Window window) {
        return Printer.window(window);
    }

    /** A length of time as it is written, such as {@code 1 day 12 hours}. */
    public static String print(Span span) {
        return Printer.span(span);
    }

    /** What people call a column, and the unit behind its values. */
    public record Label(String text, @Nullable String unit) {}

    /** What people call the things that a condition names. */
    public interface Labels {
        Label column(String name);

        /** {@code 15 min (threshold late minutes)}, in that language. */
        String threshold(String name, Locale locale);
    }

    /** A condition that can be read, with no brackets but those that it needs. */
    static String tidy(String text) {
        return print(Parser.parse(text, new TextPositions(text)));
    }

    /** A condition in plain English, from its grammar alone; a text that cannot be read stays as it is. */
    public static String sentence(String text, Labels labels) {
        return sentence(text, labels, Locale.ENGLISH);
    }

    /** A condition in plain words of a language: English, German or Norwegian. */
    public static String sentence(String text, Labels labels, Locale locale) {
        try {
            return new Sentence(labels, locale).of(Parser.parse(text, new TextPositions(text)));
        } catch (ConditionSyntaxException unreadable) {
            return text;
        }
    }

    /** A calculated value in plain English: {@code the sum of litres}. */
    public static String noun(String text, Labels labels) {
        try {
            return new Sentence(labels, Locale.ENGLISH).noun(Parser.parse(text, new TextPositions(text)));
        } catch (ConditionSyntaxException unreadable) {
            return text;
        }
    }

    /** The names of the thresholds that a text uses; none of one that cannot be read. */
    public static Set<String> thresholdsIn(String text) {
        try {
            return thresholdsIn(Parser.parse(text, new TextPositions(text)));
        } catch (ConditionSyntaxException unreadable) {
            return Set.of();
        }
    }

    public Expression tree() {
        return tree;
    }

    /** The operands of the topmost {@code and}, in order; the whole condition where there is none. */
    public List<Expression> parts() {
        return tree instanceof Expression.And(var operands) ? operands : List.of(tree);
    }

    /** A column compared for equality with a text. */
    public record ComparedText(int column, String text, Place place) {}

    /** The texts that columns are compared with, to be warned of where no row has them. */
    public List<ComparedText> comparedTexts() {
        var compared = new ArrayList<ComparedText>();
        Trees.nodes(tree).forEach(node -> {
            switch (node) {
                case Expression.Comparison(var operator, var left, var right)
                when operator == Expression.Comparison.Operator.EQUAL
                        || operator == Expression.Comparison.Operator.UNEQUAL -> {
                    addCompared(compared, left, right);
                    addCompared(compared, right, left);
                }
                case Expression.In(var operand, var options, var _) ->
                    options.forEach(option -> addCompared(compared, operand, option));
                default -> {}
            }
        });
        return compared;
    }

    private void addCompared(List<ComparedText> compared, Expression column, Expression value) {
        if (!(column instanceof Expression.ColumnName)) return;
        if (!(value instanceof Expression.Literal(var _, String text))) return;
        String sought = layout.isUuid(column) ? text.toLowerCase(Locale.ROOT) : text;
        layout.slotOf(column).ifPresent(slot -> compared.add(new ComparedText(slot, sought, places.of(value))));
    }

    /**
     * The whole condition with one part widened, so that rows without a value in the column count as well: {@code late > 15} becomes
     * {@code late > 15 or late is null}.
     *
     * @param part by its place among {@link #parts()}
     * @return empty for a look at history: that is missing until enough is learnt, not in the data
     */
    public Optional<String> countingMissing(int part, String column) {
        var evaluation = Trees.nodes(tree)
                .filter(node -> node instanceof Expression.Aggregate || node instanceof Expression.History)
                .filter(node -> Printer.print(node).equals(column))
                .findFirst();
        if (evaluation.filter(Expression.History.class::isInstance).isPresent()) return Optional.empty();
        var missing = new Expression.IsNull(evaluation.orElseGet(() -> named(column)), false);
        var parts = new ArrayList<>(parts());
        var former = parts.get(part);
        var either =
                new ArrayList<Expression>(former instanceof Expression.Or(var operands) ? operands : List.of(former));
        either.add(missing);
        parts.set(part, new Expression.Or(either));
        return Optional.of(print(parts.size() == 1 ? parts.getFirst() : new Expression.And(parts)));
    }

    private static Expression named(String column) {
        boolean quoted =
                !column.matches("[A-Za-z_][A-Za-z0-9_]*") || Words.RESERVED.contains(column.toLowerCase(Locale.ROOT));
        return new Expression.ColumnName(column, quoted);
    }

    /** Where this asks whether a text is missing, and would pass over one that is empty. */
    public List<EmptyTexts.Asked> missingTexts(Columns columns) {
        return EmptyTexts.in(tree, layout, columns, places);
    }

    /** The windows of time that every exception lies in: the column, and its bounds at a slot. */
    public Map<String, Coverage.Stretch> windowsAt(Moment moment) {
        var windows = new LinkedHashMap<String, Coverage.Stretch>();
        for (var part : parts()) {
            if (!(part instanceof Expression.Within(var operand, var window, boolean negated)) || negated) continue;
            if (!(operand instanceof Expression.ColumnName(var name, var _)) || window instanceof Window.OlderThan)
                continue;
            if (types.get(operand) == Type.DATE) {
                var dates = window.datesAt(moment);
                windows.put(name, new Coverage.Stretch(start(dates.from(), moment), start(dates.to(), moment)));
            } else {
                var instants = window.instantsAt(moment);
                windows.put(name, new Coverage.Stretch(Objects.requireNonNull(instants.from()), instants.to()));
            }
        }
        return windows;
    }

    private static Instant start(@Nullable LocalDate date, Moment moment) {
        return Objects.requireNonNull(date).atStartOfDay(moment.zone()).toInstant();
    }

    /** The columns of a coming time by which exceptions are chosen: {@code due in next 30 days}. */
    public Set<String> comingIn() {
        var columns = new LinkedHashSet<String>();
        Trees.nodes(tree).forEach(node -> {
            if (node instanceof Expression.Within(var operand, Window.Next _, boolean negated)
                    && !negated
                    && operand instanceof Expression.ColumnName(var name, var _)) columns.add(name);
        });
        return columns;
    }

    /** By which columns one exception is worse than another, the first that is written first. */
    public List<WorseOrder> worseOrder() {
        return WorseOrder.of(tree, layout, types);
    }

    /** True where the answer for the same row changes with the slot. */
    public boolean isRelative() {
        return Trees.isRelative(tree);
    }

    /** The positions of the columns that this condition reads, in the order it reads them. */
    public Set<Integer> columnsRead() {
        return columnsOf(tree);
    }

    /** A evaluator of rows for the check at {@code moment}; rows must have the columns that this was read against. */
    public RowEvaluator at(Moment moment) {
        var compiler = new Compiler(layout, types, places, moment, thresholds);
        var parts = parts().stream()
                .map(part -> new RowEvaluator.Part(part, places.textOf(part), compiler.compile(part), columnsOf(part)))
                .toList();
        return new RowEvaluator(parts, new CellHighlighter(compiler, this::columnsOf));
    }

    private static Set<String> thresholdsIn(Expression tree) {
        var used = new LinkedHashSet<String>();
        Trees.nodes(tree).forEach(node -> {
            if (node instanceof Expression.Threshold(var name, var _)) used.add(name);
        });
        return used;
    }

    private Set<Integer> columnsOf(Expression node) {
        var read = new LinkedHashSet<Integer>();
        collectColumns(node, read);
        return read;
    }

    private void collectColumns(Expression node, Set<Integer> read) {
        var slot = layout.slotOf(node);
        if (slot.isPresent()) read.add(slot.getAsInt());
        else Trees.children(node).forEach(child -> collectColumns(child, read));
    }
}
