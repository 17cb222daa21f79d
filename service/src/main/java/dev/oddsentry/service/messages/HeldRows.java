package dev.oddsentry.service.messages;

import dev.oddsentry.service.failures.CheckFailureException;
import dev.oddsentry.service.failures.FailureKind;
import org.jspecify.annotations.Nullable;

/**
 * Counts rows that are collected for one mail or file, all of which are in memory at once. A check that asks for more than its part of the memory fails in words,
 * instead of ending the service with all other checks.
 */
public final class HeldRows {
    private static final long MEBIBYTE = 1024 * 1024;
    /** Of the heap, since several are written at a time and each is rendered too. */
    private static final int PART = 8;
    /** A value with its object, its marks and its place in lists. */
    private static final int BYTES_OF_CELL = 72;

    private final long most;
    private long bytes;

    public HeldRows() {
        this(Runtime.getRuntime().maxMemory() / PART);
    }

    public HeldRows(long most) {
        this.most = most;
    }

    /** @throws CheckFailureException if the rows are too many or too wide to be written together */
    public void add(Iterable<? extends @Nullable Object> row) {
        for (Object cell : row) bytes += of(cell);
        if (bytes > most)
            throw new CheckFailureException(
                    FailureKind.MEMORY,
                    "The rows that go together into one message or file need more than " + most / MEBIBYTE
                            + " MiB of memory. Report fewer rows, select fewer or shorter columns, or have the operator give the service more memory.");
    }

    private static long of(@Nullable Object cell) {
        return BYTES_OF_CELL
                + switch (cell) {
                    case String text -> text.length();
                    case byte[] binary -> 2L * binary.length;
                    case null, default -> 0;
                };
    }
}
