package dev.oddsentry.service.people;

import dev.oddsentry.service.web.RefusedException;
import java.io.Serializable;
import java.util.List;
import java.util.UUID;

/**
 * A person who is logged in. Kept in sessions, so it holds no secret.
 *
 * @param email empty for one who has no address
 * @param teams by name; in sessions from before there were any it is null until the next request
 */
public record Person(UUID id, String login, String name, String email, Role role, List<String> teams)
        implements Serializable {
    /** @throws RefusedException if they have none, as programs and some who log in through an identity provider */
    public String mailAddress() {
        if (email.isBlank()) throw RefusedException.conflict(name + " has no address. An operator can enter one.");
        return email;
    }

    public boolean is(Role role) {
        return this.role == role;
    }
}
