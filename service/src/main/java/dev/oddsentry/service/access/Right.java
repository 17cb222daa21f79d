package dev.oddsentry.service.access;

import dev.oddsentry.service.people.Role;
import java.util.Locale;

/** What somebody must be allowed to do, as {@code rights.properties} names it. */
public enum Right {
    /** Also without a log-in. */
    EVERYONE(Role.READER, true),
    /** Everybody who is logged in: their own session, password, views and filters. */
    SELF(Role.READER, true),
    /** Rules, checks and findings. */
    SEE(Role.READER, true),
    /** Taking, snoozing, accepting and noting findings. */
    HANDLE(Role.READER, false),
    /** Definitions, rows and messages. */
    LOOK(Role.ANALYST, true),
    /** Running queries and trials, which changes nothing that others see. */
    TRY(Role.ANALYST, false),
    /** Having a rule checked, or what comes of a check. */
    CHECK(Role.ANALYST, false),
    /** Changing what a team owns. */
    WRITE(Role.ANALYST, false),
    /** What a lead decides for their team: activation, values of thresholds, who is in it. */
    LEAD(Role.LEAD, false),
    /** Who did what. */
    OVERSEE(Role.OPERATOR, true),
    /** Sources, mail, people and teams. */
    OPERATE(Role.OPERATOR, false);

    private final Role least;
    private final boolean open;

    /** @param open whether auditors have it, who see everything */
    Right(Role least, boolean open) {
        this.least = least;
        this.open = open;
    }

    static Right of(String word) {
        return valueOf(word.toUpperCase(Locale.ROOT));
    }

    /** Whether the role has it for anything at all. */
    boolean isOf(Role role, boolean teamsDecide) {
        if (role == Role.AUDITOR) return open;
        // Before there were leads, analysts did what they do.
        Role needed = this == LEAD && !teamsDecide ? Role.ANALYST : least;
        return role.covers(needed);
    }

    /** Whether it depends on the team that owns the thing. */
    boolean isOfTeam() {
        return this == CHECK || this == WRITE || this == LEAD;
    }

    /** What a token needs for it. */
    TokenScope scope() {
        return switch (this) {
            case EVERYONE, SEE, LOOK, OVERSEE -> TokenScope.READ;
            case TRY, CHECK -> TokenScope.CHECK;
            case HANDLE, WRITE, LEAD -> TokenScope.WRITE;
            case SELF, OPERATE -> TokenScope.OPERATE;
        };
    }

    /** Who has it, for a refusal: {@code leads and operators}. */
    String holders(boolean teamsDecide) {
        return switch (this) {
            case EVERYONE, SELF, SEE -> "everybody";
            case HANDLE -> "readers, analysts, leads and operators";
            case LOOK -> "analysts, leads, operators and auditors";
            case TRY, CHECK, WRITE -> "analysts, leads and operators";
            case LEAD -> teamsDecide ? "leads and operators" : "analysts, leads and operators";
            case OVERSEE -> "operators and auditors";
            case OPERATE -> "operators";
        };
    }
}
