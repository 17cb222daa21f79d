package dev.oddsentry.service.access;

/** What a person said of a program that asked to be logged in. */
public enum DeviceAnswer {
    ALLOWED,
    REFUSED
}
