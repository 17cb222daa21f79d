package dev.oddsentry.service.queries;

import dev.oddsentry.service.failures.FailureKind;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import org.jspecify.annotations.Nullable;
import org.postgresql.PGConnection;

/** A query while it runs: how far it is, and how to cancel it in its source. Thread-safe. */
public final class RunningQuery {
    /** After it the connection is cut off: the line to the source is dead, or the source does not cancel. */
    private static final Duration TO_END = Duration.ofSeconds(5);

    private final Duration limit;
    private volatile long rows;
    private long beganNanos = System.nanoTime();
    private @Nullable Statement statement;
    private volatile @Nullable String cancelled;
    private boolean overLimit;
    private @Nullable Statement cancelling;

    /** @param limit from when the source is asked, reading included; the watcher cancels a query that takes longer */
    public RunningQuery(Duration limit) {
        this.limit = limit;
    }

    public Duration limit() {
        return limit;
    }

    /** Rows read so far. */
    public long rows() {
        return rows;
    }

    /** Cancels it in the source if it runs there for longer than it may. Waiting for a connection does not count. */
    public synchronized void cancelOverLimit() {
        if (statement == null || took().compareTo(limit) <= 0) return;
        overLimit = true;
        cancel("It took longer than " + limit.toSeconds() + " s, so the query was cancelled in the source.");
    }

    /**
     * Cancels it in the source, now or as soon as it begins there. A second reason changes nothing.
     *
     * @param reason in words, a whole sentence
     */
    public synchronized void cancel(String reason) {
        if (cancelled == null) cancelled = reason;
        if (statement == null || cancelling == statement) return;
        cancelling = statement;
        var running = statement;
        // In a thread of its own, since the line may be dead: the watch has other queries to look after.
        Thread.ofVirtual().name("cancel-query").start(() -> cancelOrCutOff(running));
    }

    private void cancelOrCutOff(Statement running) {
        try {
            var connection = running.getConnection();
            // The driver's statement takes itself for idle while it fetches on, and would cancel nothing then.
            if (connection.isWrapperFor(PGConnection.class))
                connection.unwrap(PGConnection.class).cancelQuery();
            else running.cancel();
        } catch (SQLException notReached) {
            // It ended by itself, or its source does not answer: then it is cut off below.
        }
        try {
            if (hasEnded(running)) return;
            running.getConnection().abort(Runnable::run);
        } catch (SQLException alreadyOver) {
            // Its connection is gone.
        } catch (InterruptedException stopping) {
            Thread.currentThread().interrupt();
        }
    }

    /** Waits a while for it to end, as it does where the source heard of the cancellation. */
    private synchronized boolean hasEnded(Statement running) throws InterruptedException {
        long until = System.nanoTime() + TO_END.toNanos();
        while (statement == running) {
            long left = (until - System.nanoTime()) / 1_000_000;
            if (left <= 0) return false;
            wait(left);
        }
        return true;
    }

    /** Cheap enough to be asked at every row, since a condition may take long on one. */
    boolean isCancelled() {
        return cancelled != null;
    }

    /** What the end of a cancelled query means; null if it was not cancelled. */
    synchronized @Nullable QueryFailureException failure(SQLException e) {
        if (cancelled == null) return null;
        var kind = overLimit ? FailureKind.TIME_LIMIT : FailureKind.QUERY_STOPPED;
        return new QueryFailureException(kind, cancelled, e);
    }

    synchronized Duration took() {
        return Duration.ofNanos(System.nanoTime() - beganNanos);
    }

    synchronized void began(Statement running) {
        if (cancelled != null) throw new QueryFailureException(FailureKind.QUERY_STOPPED, cancelled);
        statement = running;
        beganNanos = System.nanoTime();
    }

    /** A cancellation may come while nothing runs in the source, between one fetch and the next. */
    private synchronized void refuseIfCancelled() {
        if (cancelled == null) return;
        var kind = overLimit ? FailureKind.TIME_LIMIT : FailureKind.QUERY_STOPPED;
        throw new QueryFailureException(kind, cancelled, new SQLException(cancelled));
    }

    synchronized void ended() {
        statement = null;
        notifyAll();
    }

    void read(long count) {
        rows = count;
        refuseIfCancelled();
        if (Thread.currentThread().isInterrupted())
            throw new QueryFailureException(FailureKind.QUERY_STOPPED, "The service is shutting down.");
    }
}
