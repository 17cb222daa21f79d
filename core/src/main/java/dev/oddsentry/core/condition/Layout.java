package dev.oddsentry.core.condition;

import java.util.OptionalInt;

/** Where the value of a node lies ready in a row; a node without such a place is calculated from those under it. */
interface Layout {
    OptionalInt slotOf(Expression node);

    /** Whether the node is a column of uuids, which the source gives in lower case and compares without regard to case. */
    default boolean isUuid(Expression node) {
        return false;
    }
}
