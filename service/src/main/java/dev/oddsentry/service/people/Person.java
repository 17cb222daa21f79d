package dev.oddsentry.service.people;

import java.io.Serializable;
import java.util.List;
import java.util.UUID;

/**
 * A person who is logged in. Kept in sessions, so it holds no secret.
 *
 * @param teams by name; in sessions from before there were any it is null until the next request
 */
public record Person(UUID id, String login, String name, String email, Role role, List<String> teams)
        implements Serializable {
    public boolean is(Role role) {
        return this.role == role;
    }
}
