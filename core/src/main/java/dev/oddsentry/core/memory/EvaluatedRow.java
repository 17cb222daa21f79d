package dev.oddsentry.core.memory;

import dev.oddsentry.core.finding.Digest;
import dev.oddsentry.core.finding.Severity;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One row, or group, of the present result as memory sees it.
 *
 * @param key digest of the identity
 * @param identity the values of the key columns, for people and as proof against a collision
 * @param severity null where the row is no exception
 * @param evaluated false where a group's condition is unknown
 * @param fingerprint digest of the watched columns; of no meaning where it is no exception
 * @param row all cells of the row; of one that is no exception none, unless somebody shows the whole report
 */
public record EvaluatedRow(
        Digest key,
        List<@Nullable Object> identity,
        @Nullable Severity severity,
        boolean evaluated,
        Digest fingerprint,
        List<@Nullable Object> row) {

    /** A row that is no exception, or one that is unknown. */
    public static EvaluatedRow unremarkable(
            Digest key, List<@Nullable Object> identity, boolean evaluated, List<@Nullable Object> row) {
        return new EvaluatedRow(key, identity, null, evaluated, key, row);
    }

    /** The same without its cells: a million of them are kept until the end of a check, and their rows stand elsewhere. */
    EvaluatedRow withoutCells() {
        return new EvaluatedRow(key, List.of(), severity, evaluated, fingerprint, List.of());
    }

    public boolean isException() {
        return severity != null;
    }
}
