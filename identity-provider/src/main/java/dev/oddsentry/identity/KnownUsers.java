package dev.oddsentry.identity;

import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;

/** Who is at the provider now; they may come and go while it runs. */
final class KnownUsers implements UserDetailsService {
    private final Map<String, KnownUser> byLogin = new ConcurrentHashMap<>();

    KnownUsers(Collection<KnownUser> users) {
        users.forEach(this::put);
    }

    void put(KnownUser user) {
        byLogin.put(user.login(), user);
    }

    void remove(String login) {
        byLogin.remove(login);
    }

    Optional<KnownUser> find(String login) {
        return Optional.ofNullable(byLogin.get(login));
    }

    @Override
    public UserDetails loadUserByUsername(String login) {
        var user = find(login).orElseThrow(() -> new UsernameNotFoundException("no such user"));
        return User.withUsername(user.login())
                .password("{noop}" + user.password())
                .build();
    }
}
