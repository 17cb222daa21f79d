package dev.oddsentry.core.condition;

import org.jspecify.annotations.Nullable;

/** A compiled expression. Stateless, so that one may serve any number of rows and threads. */
interface Node {
    /** @return a value of the node's type; null where it is unknown */
    @Nullable
    Object on(@Nullable Object[] row);
}
