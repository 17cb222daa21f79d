package dev.oddsentry.service.access;

import dev.oddsentry.service.people.Person;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.security.authentication.AbstractAuthenticationToken;
import org.springframework.security.core.authority.SimpleGrantedAuthority;

/** A person who has shown who they are. Kept in sessions, under the log-in name. */
public final class LoggedIn extends AbstractAuthenticationToken {
    private final Person person;

    public LoggedIn(Person person) {
        super(List.of(new SimpleGrantedAuthority("ROLE_" + person.role())));
        this.person = person;
        setAuthenticated(true);
    }

    @Override
    public Person getPrincipal() {
        return person;
    }

    @Override
    public @Nullable Object getCredentials() {
        return null;
    }

    @Override
    public String getName() {
        return person.login();
    }
}
