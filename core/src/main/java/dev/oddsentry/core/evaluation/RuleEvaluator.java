package dev.oddsentry.core.evaluation;

import dev.oddsentry.core.condition.GroupEvaluator.GroupRow;
import dev.oddsentry.core.condition.GroupEvaluator.Learning;
import dev.oddsentry.core.condition.Grouping.Measured;
import dev.oddsentry.core.condition.RowEvaluator;
import dev.oddsentry.core.condition.RowFailureException;
import dev.oddsentry.core.condition.Verdict;
import dev.oddsentry.core.condition.WorseOrder;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.EvaluatedRow;
import dev.oddsentry.core.value.Columns;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Judges the rows of one check, or the groups they make: exception or not, how bad, and who it is. Made by {@link CheckedRule};
 * belongs to one thread, since it counts. Give it every row, then {@link #finish} it.
 */
public final class RuleEvaluator {
    private final Columns columns;
    private final @Nullable GroupRows groups;
    private final @Nullable RowEvaluator exceptions;
    private final List<LevelCondition> bands;
    private final int[] key;
    private final int[] watch;
    private final List<WorseOrder> worseOrder;
    private final Digester digester;
    private final Map<Digest, Long> copies = new HashMap<>();
    private final List<Point> points = new ArrayList<>();
    private final List<UnknownGroup> unevaluated = new ArrayList<>();
    private boolean keepsAllCells;
    private List<Extremes> extremes = List.of();
    private @Nullable Digest soughtKey;
    private @Nullable Sought sought;

    /** @param condition null in the last band, which every other exception gets */
    record LevelCondition(Severity severity, @Nullable RowEvaluator condition) {}

    /** What was measured of a group at this check. */
    public record Point(Digest group, List<@Nullable Object> per, Measured measured, BigDecimal value) {}

    /** An unknown group, and why. */
    public record UnknownGroup(List<@Nullable Object> per, String reason) {}

    RuleEvaluator(
            Columns columns,
            @Nullable GroupRows groups,
            @Nullable RowEvaluator exceptions,
            List<LevelCondition> bands,
            int[] key,
            int[] watch,
            List<WorseOrder> worseOrder,
            Digester digester) {
        this.columns = columns;
        this.groups = groups;
        this.exceptions = exceptions;
        this.bands = List.copyOf(bands);
        this.key = key.clone();
        this.watch = watch.clone();
        this.worseOrder = List.copyOf(worseOrder);
        this.digester = digester;
    }

    /** By which of the {@link #columns} one exception is worse than another of the same severity. */
    public List<WorseOrder> worseOrder() {
        return worseOrder;
    }

    /** The worst value of a column. */
    public record Extreme(WorseOrder of, Object value) {}

    /** The columns of what is evaluated: the query's, or those of the groups. */
    public Columns columns() {
        return columns;
    }

    /**
     * @param sink given the row's sighting, unless it goes into a group
     * @throws dev.oddsentry.core.condition.RowFailureException if a condition cannot be calculated on this row
     */
    public void accept(@Nullable Object[] row, Consumer<EvaluatedRow> sink) {
        if (groups == null) sink.accept(evaluate(row, List.of()));
        else groups.add(row);
    }

    /** A group that is evaluated even if it has no rows. */
    public void expect(List<@Nullable Object> per) {
        if (groups != null) groups.expect(per);
    }

    /** Judges the groups, once all rows are in. */
    public void finish(PastSeries past, Consumer<EvaluatedRow> sink) {
        if (groups == null) return;
        groups.finish(past, (group, per, row) -> {
            sink.accept(evaluate(row.cells(), row.learning()));
            keepPoints(group, per, row);
        });
    }

    private void keepPoints(Digest group, List<@Nullable Object> per, GroupRow row) {
        row.points().forEach((measured, value) -> points.add(new Point(group, per, measured, value)));
    }

    private EvaluatedRow evaluate(@Nullable Object[] row, List<Learning> learning) {
        var identity = groups == null ? identityOf(row) : pick(row, key);
        var verdict = exceptions == null ? Verdict.TRUE : exceptions.evaluate(row);
        for (var each : extremes) each.see(row);
        boolean evaluated = groups == null || verdict != Verdict.UNKNOWN;
        if (!evaluated) unevaluated.add(new UnknownGroup(identity, reason(row, learning)));
        var digest = digester.digest(identity);
        if (digest.equals(soughtKey)) sought = sought(row, verdict);
        if (verdict != Verdict.TRUE)
            return EvaluatedRow.unremarkable(digest, identity, evaluated, keepsAllCells ? wholeRow(row) : List.of());
        return new EvaluatedRow(
                digest, identity, severityOf(row), true, digester.digest(pick(row, watch)), wholeRow(row));
    }

    /** Gives the cells of rows, or groups, that are no exceptions too, for those who show the whole report. */
    public void keepAllCells() {
        keepsAllCells = true;
    }

    /** Keeps for each of these columns the value of all rows, or groups, that is the nearest to being an exception. */
    public void keepExtremes(List<WorseOrder> of) {
        extremes = of.stream().map(Extremes::new).toList();
    }

    /** As far as they were kept and there are any. */
    public List<Extreme> extremes() {
        return extremes.stream().flatMap(each -> each.found().stream()).toList();
    }

    /** Keeps what is said of the row, or group, of this identity. */
    public void seek(Digest identity) {
        soughtKey = identity;
    }

    /**
     * What is said of the one that was sought.
     *
     * @param cells of its row
     * @param severity null where it is no exception
     */
    public record Sought(
            List<@Nullable Object> cells,
            Verdict verdict,
            @Nullable Severity severity,
            List<RowEvaluator.PartVerdict> parts) {}

    private Sought sought(@Nullable Object[] row, Verdict verdict) {
        return new Sought(
                wholeRow(row),
                verdict,
                verdict == Verdict.TRUE ? severityOf(row) : null,
                exceptions == null ? List.of() : partsInWords(row));
    }

    private List<RowEvaluator.PartVerdict> partsInWords(@Nullable Object[] row) {
        try {
            return exceptions == null ? List.of() : exceptions.partsOn(row);
        } catch (RowFailureException notReached) {
            // A part that the ones before it guard against, such as a division by zero.
            return List.of();
        }
    }

    /** Once all rows are in: empty if no row has the identity that was sought. */
    public Optional<Sought> sought() {
        return Optional.ofNullable(sought);
    }

    private String reason(@Nullable Object[] row, List<Learning> learning) {
        var words = new LinkedHashSet<String>();
        learning.forEach(each -> words.add(each.words()));
        if (exceptions != null && words.isEmpty()) {
            exceptions
                    .missing(row)
                    .forEach(column -> words.add(columns.at(column).name() + " is missing"));
        }
        return words.isEmpty() ? "a value is missing" : words.stream().collect(Collectors.joining(", "));
    }

    /**
     * The key columns' values of a row, for people; without key columns the whole row and how many equal rows came before it. Of a
     * row that goes into a group, the group's.
     */
    public List<@Nullable Object> identityOf(@Nullable Object[] row) {
        if (groups != null) return groups.perOf(row);
        if (key.length > 0) return pick(row, key);
        var whole = wholeRow(row);
        whole.add(copies.merge(digester.digest(whole), 1L, Long::sum));
        return whole;
    }

    private Severity severityOf(@Nullable Object[] row) {
        for (var band : bands) {
            if (band.condition() == null || band.condition().evaluate(row) == Verdict.TRUE) return band.severity();
        }
        throw new IllegalStateException("no level without a condition in " + bands);
    }

    /** The positions of the cells that made an exception of this row, those of its band included. */
    public Set<Integer> marks(List<? extends @Nullable Object> row) {
        @Nullable Object[] cells = row.toArray();
        var marks = new LinkedHashSet<Integer>();
        if (exceptions != null) marks.addAll(exceptions.marks(cells));
        for (var band : bands) {
            if (band.condition() == null) break;
            if (band.condition().evaluate(cells) == Verdict.TRUE) {
                marks.addAll(band.condition().marks(cells));
                break;
            }
        }
        return marks;
    }

    /** Unknown rows or groups. */
    public long unknownRows() {
        return exceptions == null ? 0 : exceptions.unknownRows();
    }

    public List<UnknownGroup> unevaluated() {
        return List.copyOf(unevaluated);
    }

    /** A group by the digest of its {@code per} values. */
    public record Group(Digest key, List<@Nullable Object> per) {}

    /** The groups that had a row; none where rows are evaluated. */
    public List<Group> groupsWithRows() {
        return groups == null ? List.of() : groups.withRows();
    }

    /** What was measured of each group, to be kept for later checks. */
    public List<Point> points() {
        return List.copyOf(points);
    }

    /** How many rows each part of the condition left, and where it was unknown; empty where every row is an exception. */
    public List<RowEvaluator.PartTally> tally() {
        return exceptions == null ? List.of() : exceptions.tally();
    }

    private static List<@Nullable Object> wholeRow(@Nullable Object[] row) {
        var cells = new ArrayList<@Nullable Object>(row.length + 1);
        for (var cell : row) cells.add(cell);
        return cells;
    }

    static List<@Nullable Object> pick(@Nullable Object[] row, int[] positions) {
        var picked = new ArrayList<@Nullable Object>(positions.length);
        for (int position : positions) picked.add(row[position]);
        return picked;
    }
}
