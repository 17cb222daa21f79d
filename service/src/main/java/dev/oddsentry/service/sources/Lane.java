package dev.oddsentry.service.sources;

/** Who shares a source's connections: people who try things never wait for checks, nor checks for people. */
public enum Lane {
    CHECKS,
    BY_HAND
}
