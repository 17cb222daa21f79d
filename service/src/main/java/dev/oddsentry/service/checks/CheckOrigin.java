package dev.oddsentry.service.checks;

public enum CheckOrigin {
    SCHEDULED,
    ON_DEMAND
}
