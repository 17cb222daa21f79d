package dev.oddsentry.core.memory;

/** How one check moved what is so now of one finding. A finding that did not move has no move. */
public sealed interface Move {
    Now now();

    /** Seen as an exception for the first time. */
    record Opened(Sighting sighting, Now now) implements Move {}

    /** Known before: reopened, back in sight, of another severity, or with other watched values. */
    record Altered(Known before, Sighting sighting, Now now) implements Move {}

    /** Seen, and no exception any more; or gone, where absence means put right. */
    record Cleared(Known before, Now now) implements Move {}

    /** Gone, where absence means that the window passed it by. */
    record PassedBy(Known before, Now now) implements Move {}
}
