package dev.oddsentry.service.access;

import dev.oddsentry.service.audit.Audit;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.Person;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.UUID;
import java.util.stream.Stream;
import org.jooq.DSLContext;
import org.jspecify.annotations.Nullable;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** Where a person is logged in to the console. What a browser proves itself with is not shown: a session is named by an id made from it. */
@Component
public class ConsoleSessions {
    private final FindByIndexNameSessionRepository<? extends Session> sessions;
    private final DSLContext db;
    private final Audit audit;

    ConsoleSessions(FindByIndexNameSessionRepository<? extends Session> sessions, DSLContext db, Audit audit) {
        this.sessions = sessions;
        this.db = db;
        this.audit = audit;
    }

    /**
     * @param endsAt if it is not used before
     * @param current whether it is the one that asks
     */
    public record ConsoleSession(UUID id, Instant beganAt, Instant usedAt, Instant endsAt, boolean current) {}

    /**
     * The latest used first.
     *
     * @param asking the session of the request; null for none
     */
    public List<ConsoleSession> of(Person person, @Nullable String asking) {
        return running(person)
                .map(each -> new ConsoleSession(
                        shown(each.getId()),
                        each.getCreationTime(),
                        each.getLastAccessedTime(),
                        each.getLastAccessedTime().plus(each.getMaxInactiveInterval()),
                        each.getId().equals(asking)))
                .sorted(Comparator.comparing(ConsoleSession::usedAt).reversed())
                .toList();
    }

    /** @return false if the person has no such session */
    public boolean end(Person person, UUID id) {
        var found =
                running(person).filter(each -> shown(each.getId()).equals(id)).findFirst();
        found.ifPresent(each -> sessions.deleteById(each.getId()));
        if (found.isPresent()) audit.record(db, person.id(), AuditAct.END_SESSION, person.login(), null);
        return found.isPresent();
    }

    /**
     * Ends all but the one that asks.
     *
     * @return how many
     */
    public int endOthers(Person person, @Nullable String asking) {
        var others =
                running(person).filter(each -> !each.getId().equals(asking)).toList();
        others.forEach(each -> sessions.deleteById(each.getId()));
        if (!others.isEmpty())
            audit.record(db, person.id(), AuditAct.END_SESSION, person.login(), others.size() + " others");
        return others.size();
    }

    private Stream<? extends Session> running(Person person) {
        return sessions.findByPrincipalName(person.login()).values().stream().filter(each -> !each.isExpired());
    }

    private static UUID shown(String secret) {
        return UUID.nameUUIDFromBytes(("shown " + secret).getBytes(StandardCharsets.UTF_8));
    }
}
