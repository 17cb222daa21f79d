package dev.oddsentry.service.config;

import org.springframework.context.SmartLifecycle;

/** Watches something of this node on a thread of its own, with a pause after each time, for as long as the service runs. */
public abstract class RepeatedWatch implements SmartLifecycle {
    private final String name;
    private final long pauseMillis;
    private volatile boolean on;
    private Thread thread = Thread.ofVirtual().unstarted(this::run);

    protected RepeatedWatch(String name, long pauseMillis) {
        this.name = name;
        this.pauseMillis = pauseMillis;
    }

    /** One time; what it throws ends the watch, so it deals with what may fail. */
    protected abstract void watchOnce();

    private void run() {
        while (on) {
            try {
                Thread.sleep(pauseMillis);
            } catch (InterruptedException stopped) {
                return;
            }
            watchOnce();
        }
    }

    @Override
    public void start() {
        on = true;
        thread = Thread.ofVirtual().name(name).start(this::run);
    }

    @Override
    public void stop() {
        on = false;
        thread.interrupt();
    }

    @Override
    public boolean isRunning() {
        return on;
    }
}
