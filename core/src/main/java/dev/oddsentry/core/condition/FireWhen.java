package dev.oddsentry.core.condition;

import dev.oddsentry.core.problem.Problem;
import dev.oddsentry.core.time.Moment;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;

/** The condition over a whole check that says whether it fires: {@code exceptions() >= 5 or updates('worsened') > 0}. */
public final class FireWhen {
    private final List<Expression.Call> counts;
    private final Node condition;

    private FireWhen(List<Expression.Call> counts, Node condition) {
        this.counts = counts;
        this.condition = condition;
    }

    /** What a check counted. */
    public interface Counts {
        /** @param severity its word; empty for all */
        long exceptions(String severity);

        /** @param kind its code; empty for all */
        long news(String kind);
    }

    /** @param readable null where there is an error */
    public record Result(@Nullable FireWhen readable, List<Problem> problems) {}

    public static Result read(String text) {
        var places = new TextPositions(text);
        Expression tree;
        try {
            tree = Parser.parse(text, places);
        } catch (ConditionSyntaxException stopped) {
            return new Result(null, List.of(stopped.problem()));
        }
        var checker = new TypeChecker(Scope.ofCheck(), places);
        var types = checker.checkCondition(tree);
        if (checker.problems().stream().anyMatch(Problem::stopsSave)) return new Result(null, checker.problems());
        var counts = new ArrayList<Expression.Call>();
        Trees.nodes(tree).forEach(node -> {
            if (node instanceof Expression.Call call && isCount(call) && !counts.contains(call)) counts.add(call);
        });
        Layout layout = node -> {
            int index = node instanceof Expression.Call call ? counts.indexOf(call) : -1;
            return index < 0 ? OptionalInt.empty() : OptionalInt.of(index);
        };
        // A count of the check stands for no instant, so none is asked for.
        var moment = new Moment(Instant.EPOCH, ZoneOffset.UTC);
        var compiler =
                new Compiler(layout, types, places, moment, Scope.ofCheck().thresholds());
        return new Result(new FireWhen(counts, compiler.compile(tree)), checker.problems());
    }

    /** What may come next in such a condition. */
    public static Completion.CompletionOptions complete(String text, int offset) {
        return Completion.at(text, offset, Scope.ofCheck());
    }

    private static boolean isCount(Expression.Call call) {
        return call.name().equals(CheckCounts.EXCEPTIONS) || call.name().equals(CheckCounts.UPDATES);
    }

    /** @throws RowFailureException if it cannot be calculated, such as a division by zero */
    public boolean holds(Counts counted) {
        var row = new @Nullable Object[counts.size()];
        for (int i = 0; i < row.length; i++) {
            var count = counts.get(i);
            String kind = CheckCounts.kindOf(count);
            row[i] = count.name().equals(CheckCounts.UPDATES) ? counted.news(kind) : counted.exceptions(kind);
        }
        return Objects.equals(condition.on(row), Boolean.TRUE);
    }
}
