package dev.oddsentry.core.condition;

import java.util.OptionalInt;

/** Where the value of a node lies ready in a row; a node without such a place is reckoned from those under it. */
interface Layout {
    OptionalInt slotOf(Expression node);
}
