package dev.oddsentry.service.backtests;

/** Where long work stands. */
public enum WorkState {
    WAITING,
    RUNNING,
    DONE,
    FAILED,
    STOPPED
}
