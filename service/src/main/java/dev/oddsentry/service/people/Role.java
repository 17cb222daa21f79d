package dev.oddsentry.service.people;

/** What a person may do: analysts write queries and rules and check them; operators besides manage sources and people. */
public enum Role {
    ANALYST,
    OPERATOR
}
