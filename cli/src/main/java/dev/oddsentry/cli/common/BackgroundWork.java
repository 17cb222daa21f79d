package dev.oddsentry.cli.common;

import dev.oddsentry.cli.client.Api;
import dev.oddsentry.cli.client.ApiException;
import dev.oddsentry.cli.client.NotReachedException;
import dev.oddsentry.contract.LongWorkView;
import java.io.PrintWriter;
import java.time.Duration;

/** Waits for long work that the service does, saying how far it is. Broken off here, it is stopped there. */
public final class BackgroundWork {
    private static final Duration LOOK_AGAIN = Duration.ofMillis(500);

    private final Api api;
    private final PrintWriter talk;

    public BackgroundWork(Api api, PrintWriter talk) {
        this.api = api;
        this.talk = talk;
    }

    /** @return the work as it ended */
    public LongWorkView await(LongWorkView asked) {
        String path = "/api/long-work/" + asked.id();
        var stop = new Thread(() -> stop(path));
        Runtime.getRuntime().addShutdownHook(stop);
        try {
            LongWorkView work = api.get(path, LongWorkView.class);
            int said = -1;
            while (work.endedAt() == null) {
                int done = work.stepsDone();
                if (done != said && work.steps() > 0) talk.println(done + " of " + work.steps() + " slots");
                said = done;
                Thread.sleep(LOOK_AGAIN);
                work = api.get(path, LongWorkView.class);
            }
            return work;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new NotReachedException("Interrupted.");
        } finally {
            forget(stop);
        }
    }

    private void stop(String path) {
        try {
            api.post(path + "/stop", null);
        } catch (ApiException | NotReachedException tooLate) {
            // It has ended, or nobody is there to be told.
        }
    }

    private static void forget(Thread hook) {
        try {
            Runtime.getRuntime().removeShutdownHook(hook);
        } catch (IllegalStateException shuttingDown) {
            // The hook runs already.
        }
    }
}
