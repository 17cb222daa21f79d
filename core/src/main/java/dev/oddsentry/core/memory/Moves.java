package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.util.AbstractList;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The moves of one check: first those of findings that open, in the order of the result, then the others. A first check may open a million, so
 * those are kept as numbers, about forty bytes each, and made into objects one at a time.
 */
public final class Moves extends AbstractList<FindingChange> {
    /** Of one that opens: its key, its fingerprint, and what else there is. */
    private static final int WORDS = 5;

    private static final int FIRST_PLACES = 64;
    private static final int PENDING = 1 << 8;
    private static final Severity[] SEVERITIES = Severity.values();

    private long[] words = new long[FIRST_PLACES * WORDS];
    private int opened;
    private MinimumDuration.@Nullable Start held;
    private final List<FindingChange> others = new ArrayList<>();

    public static Moves of(List<FindingChange> moves) {
        var all = new Moves();
        moves.forEach(all::record);
        return all;
    }

    void record(FindingChange move) {
        if (move instanceof FindingChange.Opened it) open(it);
        else others.add(move);
    }

    /** Those that are pending all wait since this very check. */
    private void open(FindingChange.Opened move) {
        if (move.now().held() != null) held = move.now().held();
        if ((opened + 1) * WORDS > words.length)
            words = Arrays.copyOf(words, Math.addExact(words.length, words.length / 2 / WORDS * WORDS));
        int at = opened++ * WORDS;
        var evaluatedRow = move.evaluatedRow();
        words[at] = evaluatedRow.key().high();
        words[at + 1] = evaluatedRow.key().low();
        words[at + 2] = evaluatedRow.fingerprint().high();
        words[at + 3] = evaluatedRow.fingerprint().low();
        words[at + 4] = move.now().severity().ordinal() | (move.now().state() == FindingState.PENDING ? PENDING : 0);
    }

    /** How many findings open; they are the first of the list. */
    public int opened() {
        return opened;
    }

    /** The key of one that opens. */
    public Digest key(int index) {
        return new Digest(words[index * WORDS], words[index * WORDS + 1]);
    }

    private FindingChange.Opened openedAt(int index) {
        int at = index * WORDS;
        var fingerprint = new Digest(words[at + 2], words[at + 3]);
        var severity = SEVERITIES[(int) (words[at + 4] & (PENDING - 1))];
        boolean pending = (words[at + 4] & PENDING) != 0;
        var now = pending
                ? new CurrentFinding(FindingState.PENDING, severity, fingerprint, held, null, null, false)
                : CurrentFinding.of(FindingState.OPEN, severity, fingerprint);
        return new FindingChange.Opened(
                new EvaluatedRow(key(index), List.of(), severity, true, fingerprint, List.of()), now);
    }

    @Override
    public FindingChange get(int index) {
        return index < opened ? openedAt(index) : others.get(index - opened);
    }

    @Override
    public int size() {
        return opened + others.size();
    }
}
