package dev.oddsentry.service.people;

/**
 * What a person may do. Each of the first four may do what the one before may: readers see what they may see and handle findings, analysts write
 * queries and rules, leads set thresholds and activate rules, operators manage sources, mail, people and teams. Auditors see everything and change nothing.
 */
public enum Role {
    READER,
    ANALYST,
    LEAD,
    OPERATOR,
    AUDITOR;

    /** Whether somebody of this role may do what that role may. */
    public boolean covers(Role least) {
        if (this == AUDITOR || least == AUDITOR) return this == least;
        return compareTo(least) >= 0;
    }
}
