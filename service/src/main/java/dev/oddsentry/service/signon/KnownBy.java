package dev.oddsentry.service.signon;

/** How somebody who comes from a provider for the first time is recognised as a user who is here already. */
public enum KnownBy {
    /** Not at all: each is somebody new. */
    NOTHING,
    /** By the log-in name. Only for a provider where people cannot choose it. */
    LOG_IN_NAME,
    /** By the address, if the provider has verified it. */
    ADDRESS
}
