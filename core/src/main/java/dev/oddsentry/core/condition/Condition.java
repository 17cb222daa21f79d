package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import dev.oddsentry.core.value.Columns;
import dev.oddsentry.core.value.Type;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/** A condition checked against the columns of a query: read once, bound to a slot, then a judge of many rows. */
public final class Condition {
    private final Expression tree;
    private final Columns columns;
    private final Places places;
    private final Map<Expression, Type> types;

    private Condition(Expression tree, Columns columns, Places places, Map<Expression, Type> types) {
        this.tree = tree;
        this.columns = columns;
        this.places = places;
        this.types = types;
    }

    /** Reads and checks a text; the places of problems count from its start. */
    public static Reading read(String text, Columns columns) {
        var places = new Places(text);
        Expression tree;
        try {
            tree = Parser.parse(text, places);
        } catch (ConditionSyntaxException stopped) {
            return new Reading(null, List.of(stopped.problem()));
        }
        var checker = new TypeChecker(columns, places);
        var types = checker.checkCondition(tree);
        boolean refused = checker.problems().stream().anyMatch(Problem::isError);
        return new Reading(refused ? null : new Condition(tree, columns, places, types), checker.problems());
    }

    /** The problems of grammar alone, for a text whose query's columns are not known. */
    public static List<Problem> checkGrammar(String text) {
        try {
            Parser.parse(text, new Places(text));
            return List.of();
        } catch (ConditionSyntaxException stopped) {
            return List.of(stopped.problem());
        }
    }

    /** The canonical text of a tree: reading it gives an equal tree. */
    public static String print(Expression tree) {
        return Printer.print(tree);
    }

    /** What people call a column, and the unit behind its values. */
    public record Label(String text, @Nullable String unit) {}

    /**
     * A condition in plain English, from its grammar alone; a text that cannot be read stays as it is.
     *
     * @param labels of columns by name
     */
    public static String sentence(String text, Function<String, Label> labels) {
        try {
            return new Sentence(labels).of(Parser.parse(text, new Places(text)));
        } catch (ConditionSyntaxException unreadable) {
            return text;
        }
    }

    public Expression tree() {
        return tree;
    }

    /** The operands of the topmost {@code and}, in order; the whole condition where there is none. */
    public List<Expression> parts() {
        return tree instanceof Expression.And(var operands) ? operands : List.of(tree);
    }

    /** True where the answer for the same row changes with the slot. */
    public boolean isRelative() {
        return Trees.nodes(tree).anyMatch(Expression.Within.class::isInstance);
    }

    /** The positions of the columns that this condition reads, in the order it reads them. */
    public Set<Integer> columnsRead() {
        return columnsOf(tree);
    }

    /** A judge of rows for the check at {@code moment}; rows must have the columns that this was read against. */
    public RowJudge at(Moment moment) {
        var compiler = new Compiler(columns, types, places, moment);
        var parts = parts().stream()
                .map(part -> new RowJudge.Part(part, places.textOf(part), compiler.compile(part), columnsOf(part)))
                .toList();
        return new RowJudge(parts, new Marker(compiler, this::columnsOf));
    }

    private Set<Integer> columnsOf(Expression node) {
        var read = new LinkedHashSet<Integer>();
        Trees.nodes(node).forEach(each -> {
            if (each instanceof Expression.ColumnName(var name, boolean quoted)) {
                columns.indexOf(name, quoted).ifPresent(read::add);
            }
        });
        return read;
    }
}
