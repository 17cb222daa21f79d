package dev.oddsentry.service.access;

import dev.oddsentry.service.people.Person;
import org.jspecify.annotations.Nullable;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** Ends what a person is logged in with: sessions of the console, and tokens. */
@Component
public class LogInEnds {
    private final FindByIndexNameSessionRepository<? extends Session> sessions;
    private final AccessTokens tokens;

    LogInEnds(FindByIndexNameSessionRepository<? extends Session> sessions, AccessTokens tokens) {
        this.sessions = sessions;
        this.tokens = tokens;
    }

    /** @param kept the session that stays; null for none */
    public void end(Person of, @Nullable String kept) {
        for (String id : sessions.findByPrincipalName(of.login()).keySet())
            if (!id.equals(kept)) sessions.deleteById(id);
        tokens.revokeAll(of);
    }
}
