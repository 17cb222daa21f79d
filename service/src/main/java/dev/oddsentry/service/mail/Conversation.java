package dev.oddsentry.service.mail;

import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Supplier;

/** Limits the time of a whole conversation: a server that sends a byte now and then stays within the limit of each read. */
public final class Conversation {
    private static final Duration TO_GIVE_UP = Duration.ofSeconds(5);

    private Conversation() {}

    /**
     * Interrupts {@code talk} when the time is over, which closes the socket that it waits for, so that it ends as with a line that broke.
     *
     * @param neverEnded the answer where it does not end even then
     * @throws RuntimeException what {@code talk} threw
     */
    public static <T> T within(Duration limit, Callable<T> talk, Supplier<T> neverEnded) {
        var task = new FutureTask<>(talk);
        // A virtual thread that is interrupted closes the socket it waits for; others do not.
        var thread = Thread.ofVirtual().name("conversation").start(task);
        try {
            return task.get(limit.toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException tooLong) {
            return afterInterrupt(task, thread, neverEnded);
        } catch (InterruptedException stopped) {
            T answer = afterInterrupt(task, thread, neverEnded);
            Thread.currentThread().interrupt();
            return answer;
        } catch (ExecutionException failed) {
            throw unchecked(failed);
        }
    }

    private static <T> T afterInterrupt(FutureTask<T> task, Thread thread, Supplier<T> neverEnded) {
        thread.interrupt();
        try {
            return task.get(TO_GIVE_UP.toMillis(), TimeUnit.MILLISECONDS);
        } catch (TimeoutException deaf) {
            return neverEnded.get();
        } catch (InterruptedException stopped) {
            Thread.currentThread().interrupt();
            return neverEnded.get();
        } catch (ExecutionException failed) {
            throw unchecked(failed);
        }
    }

    private static RuntimeException unchecked(ExecutionException failed) {
        return failed.getCause() instanceof RuntimeException own ? own : new IllegalStateException(failed.getCause());
    }
}
