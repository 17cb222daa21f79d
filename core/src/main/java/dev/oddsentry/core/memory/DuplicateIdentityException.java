package dev.oddsentry.core.memory;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** Two rows of one result have the same identity, so memory could not distinguish them. The check fails and writes nothing. */
public final class DuplicateIdentityException extends RuntimeException {
    private final transient List<@Nullable Object> identity;

    DuplicateIdentityException(List<@Nullable Object> identity) {
        super("two rows have the identity " + identity);
        this.identity = identity;
    }

    public List<@Nullable Object> identity() {
        return identity;
    }
}
