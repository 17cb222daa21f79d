package dev.oddsentry.core.memory;

import java.util.Optional;

/** How one check moved the current state of one finding. A finding that did not move has no move. */
public sealed interface FindingChange {
    CurrentFinding now();

    /** The finding as memory held it; empty where it is seen for the first time. */
    default Optional<StoredFinding> earlier() {
        return switch (this) {
            case Opened _ -> Optional.empty();
            case Altered(var before, var _, var _, var _) -> Optional.of(before);
            case Cleared(var before, var _) -> Optional.of(before);
            case Forgotten(var before, var _) -> Optional.of(before);
            case Missed(var before, var _) -> Optional.of(before);
            case WithoutData(var before, var _) -> Optional.of(before);
            case AgedOut(var before, var _) -> Optional.of(before);
        };
    }

    /** Seen as an exception for the first time; the sighting has no cells. */
    record Opened(EvaluatedRow evaluatedRow, CurrentFinding now) implements FindingChange {}

    /**
     * Known before: reopened, back in sight, of another severity, or with other watched values.
     *
     * @param evaluatedRow without cells
     * @param restarts whether it starts as if never seen, since it had cleared for good
     */
    record Altered(StoredFinding before, EvaluatedRow evaluatedRow, CurrentFinding now, boolean restarts)
            implements FindingChange {}

    /** Seen, and no exception any more; or gone, where absence means put right. */
    record Cleared(StoredFinding before, CurrentFinding now) implements FindingChange {}

    /** Pending, and gone before it had lasted long enough. */
    record Forgotten(StoredFinding before, CurrentFinding now) implements FindingChange {}

    /** Not seen as an exception, though not for long enough yet to clear. */
    record Missed(StoredFinding before, CurrentFinding now) implements FindingChange {}

    /** Its group cannot be evaluated: it stays as it was. */
    record WithoutData(StoredFinding before, CurrentFinding now) implements FindingChange {}

    /** Gone, where absence means that the window passed it by. */
    record AgedOut(StoredFinding before, CurrentFinding now) implements FindingChange {}
}
