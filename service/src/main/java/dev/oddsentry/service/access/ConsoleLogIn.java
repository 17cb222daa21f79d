package dev.oddsentry.service.access;

import dev.oddsentry.service.people.Person;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.stereotype.Component;

/** Begins the session of somebody who has shown who they are. */
@Component
public class ConsoleLogIn {
    /** The attribute of a session that ends earlier than others, as a number of milliseconds since 1970. */
    static final String ENDS_AT = "odd.ends-at";

    private final HttpSessionSecurityContextRepository sessions = new HttpSessionSecurityContextRepository();

    /** @param endsAt when it ends, even while it is used; null for when all do */
    public void begin(
            Person person, HttpServletRequest request, HttpServletResponse response, @Nullable Instant endsAt) {
        // A session that existed before the log-in must not become one that is logged in.
        if (request.getSession(false) != null) request.changeSessionId();
        var context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(new LoggedIn(person));
        SecurityContextHolder.setContext(context);
        sessions.saveContext(context, request, response);
        var session = request.getSession();
        if (endsAt == null) session.removeAttribute(ENDS_AT);
        else session.setAttribute(ENDS_AT, endsAt.toEpochMilli());
    }
}
