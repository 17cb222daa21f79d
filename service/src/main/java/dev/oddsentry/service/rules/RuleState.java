package dev.oddsentry.service.rules;

/** Whether a rule is checked: a draft never was active, a paused one was. */
public enum RuleState {
    DRAFT,
    ACTIVE,
    PAUSED;

    public boolean isActive() {
        return this == ACTIVE;
    }
}
