package dev.oddsentry.cli.admin;

/** What a user may do, as a command is told it. */
enum UserRole {
    READER,
    ANALYST,
    LEAD,
    OPERATOR,
    AUDITOR
}
