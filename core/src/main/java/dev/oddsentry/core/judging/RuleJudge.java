package dev.oddsentry.core.judging;

import dev.oddsentry.core.condition.RowJudge;
import dev.oddsentry.core.condition.Verdict;
import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Digester;
import dev.oddsentry.core.finding.Severity;
import dev.oddsentry.core.memory.Sighting;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * Judges the rows of one check: exception or not, how bad, and who it is. Made by {@link RuleJudges}; belongs to one thread,
 * since it counts.
 */
public final class RuleJudge {
    private final @Nullable RowJudge exceptions;
    private final List<JudgedBand> bands;
    private final int[] key;
    private final int[] watch;
    private final Digester digester;
    private final Map<Digest, Long> copies = new HashMap<>();

    /** @param condition null in the last band, which every other exception gets */
    record JudgedBand(Severity severity, @Nullable RowJudge condition) {}

    RuleJudge(@Nullable RowJudge exceptions, List<JudgedBand> bands, int[] key, int[] watch, Digester digester) {
        this.exceptions = exceptions;
        this.bands = List.copyOf(bands);
        this.key = key.clone();
        this.watch = watch.clone();
        this.digester = digester;
    }

    /** @throws dev.oddsentry.core.condition.RowFailureException if a condition cannot be reckoned on this row */
    public Sighting judge(@Nullable Object[] row) {
        var identity = identityOf(row);
        return new Sighting(
                digester.digest(identity), identity, severityOf(row), digester.digest(pick(row, watch)), wholeRow(row));
    }

    /** The key columns' values; without key columns the whole row and how many equal rows came before it. */
    public List<@Nullable Object> identityOf(@Nullable Object[] row) {
        if (key.length > 0) return pick(row, key);
        var whole = wholeRow(row);
        whole.add(copies.merge(digester.digest(whole), 1L, Long::sum));
        return whole;
    }

    private @Nullable Severity severityOf(@Nullable Object[] row) {
        if (exceptions != null && exceptions.judge(row) != Verdict.TRUE) return null;
        for (var band : bands) {
            if (band.condition() == null || band.condition().judge(row) == Verdict.TRUE) return band.severity();
        }
        throw new IllegalStateException("no last band among " + bands);
    }

    /** The positions of the cells that made an exception of this row, those of its band included. */
    public Set<Integer> marks(List<? extends @Nullable Object> row) {
        @Nullable Object[] cells = row.toArray();
        var marks = new LinkedHashSet<Integer>();
        if (exceptions != null) marks.addAll(exceptions.marks(cells));
        for (var band : bands) {
            if (band.condition() == null) break;
            if (band.condition().judge(cells) == Verdict.TRUE) {
                marks.addAll(band.condition().marks(cells));
                break;
            }
        }
        return marks;
    }

    public long unknownRows() {
        return exceptions == null ? 0 : exceptions.unknownRows();
    }

    /** How many rows each part of the condition left, and where it was unknown; empty where every row is an exception. */
    public List<RowJudge.PartTally> tally() {
        return exceptions == null ? List.of() : exceptions.tally();
    }

    private static List<@Nullable Object> wholeRow(@Nullable Object[] row) {
        var cells = new ArrayList<@Nullable Object>(row.length + 1);
        for (var cell : row) cells.add(cell);
        return cells;
    }

    private static List<@Nullable Object> pick(@Nullable Object[] row, int[] positions) {
        var picked = new ArrayList<@Nullable Object>(positions.length);
        for (int position : positions) picked.add(row[position]);
        return picked;
    }
}
