package dev.oddsentry.service.api.checks;

import dev.oddsentry.service.db.generated.tables.records.CheckCopyRecord;
import dev.oddsentry.service.rules.CheckState;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * How one personal copy of a check went.
 *
 * @param to its own addresses; where there are none, those of the rule's delivery heard
 */
public record CopyView(
        String copy,
        CheckState state,
        List<String> to,
        @Nullable String reason,
        @Nullable Long rowsRead,
        @Nullable Long exceptions,
        @Nullable Long unknownRows,
        @Nullable Long unevaluated,
        @Nullable Integer updates,
        @Nullable Integer messages,
        @Nullable Long opened,
        @Nullable Long cleared,
        @Nullable Integer tookMillis,
        Instant finishedAt) {

    static CopyView of(CheckCopyRecord row) {
        return new CopyView(
                row.getCopyKey(),
                row.getState(),
                List.of(row.getAddresses()),
                row.getReason(),
                row.getRowsRead(),
                row.getExceptions(),
                row.getUnknownRows(),
                row.getUnevaluated(),
                row.getUpdates(),
                row.getMessages(),
                row.getOpened(),
                row.getCleared(),
                row.getTookMs(),
                row.getFinishedAt());
    }
}
