package dev.oddsentry.service.api.access;

import dev.oddsentry.service.access.ConsoleSessions;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.web.RefusedException;
import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Where one is logged in to the console. */
@RestController
@RequestMapping(path = "/api/sessions", produces = "application/json")
class SessionController {
    private final ConsoleSessions sessions;

    SessionController(ConsoleSessions sessions) {
        this.sessions = sessions;
    }

    @GetMapping
    List<ConsoleSessions.ConsoleSession> listSessions(
            @AuthenticationPrincipal Person person, HttpServletRequest request) {
        return sessions.of(person, asking(request));
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void endSession(@AuthenticationPrincipal Person person, @PathVariable UUID id) {
        if (!sessions.end(person, id)) throw RefusedException.notFound("There is no such session of yours.");
    }

    /** @param sessions how many ended */
    record EndedSessions(int sessions) {}

    @DeleteMapping
    EndedSessions endOtherSessions(@AuthenticationPrincipal Person person, HttpServletRequest request) {
        return new EndedSessions(sessions.endOthers(person, asking(request)));
    }

    private static @Nullable String asking(HttpServletRequest request) {
        var session = request.getSession(false);
        return session == null ? null : session.getId();
    }
}
