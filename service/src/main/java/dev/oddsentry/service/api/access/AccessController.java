package dev.oddsentry.service.api.access;

import dev.oddsentry.service.access.AccessPolicy;
import dev.oddsentry.service.access.AccessTokens;
import dev.oddsentry.service.access.BearerTokenFilter;
import dev.oddsentry.service.access.ConsoleLogIn;
import dev.oddsentry.service.access.KnownDevices;
import dev.oddsentry.service.access.LogIns;
import dev.oddsentry.service.access.LoginGate;
import dev.oddsentry.service.audit.AuditAct;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.signon.SignOns;
import dev.oddsentry.service.signon.SignedOn;
import dev.oddsentry.service.web.RefusedException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.net.URI;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Logging in and out: a session for the console, a token for the command line. */
@RestController
@RequestMapping(path = "/api", produces = "application/json")
class AccessController {
    private final People people;
    private final AccessTokens tokens;
    private final LoginGate gate;
    private final LogIns logIns;
    private final KnownDevices devices;
    private final ConsoleLogIn console;
    private final AccessPolicy policy;
    private final SignOns signOns;

    AccessController(
            People people,
            AccessTokens tokens,
            LoginGate gate,
            LogIns logIns,
            KnownDevices devices,
            ConsoleLogIn console,
            AccessPolicy policy,
            SignOns signOns) {
        this.people = people;
        this.tokens = tokens;
        this.gate = gate;
        this.logIns = logIns;
        this.devices = devices;
        this.console = console;
        this.policy = policy;
        this.signOns = signOns;
    }

    record LogInBody(
            @NotNull @Size(max = 200) String login,
            @NotNull @Size(max = 1_000) String password,
            @Nullable @Size(max = 200) String name) {}

    @GetMapping("/session")
    Person getSession(@AuthenticationPrincipal Person person) {
        return person;
    }

    @PostMapping("/session")
    Person logIn(@Valid @RequestBody LogInBody credentials, HttpServletRequest request, HttpServletResponse response) {
        Person person = authenticate(credentials, request, AuditAct.LOG_IN);
        devices.remember(person, response);
        console.begin(person, request, response, null);
        return person;
    }

    /** @param continueAt where the browser logs out at the identity provider too; null if there is nothing to do */
    record LoggedOut(@Nullable URI continueAt) {}

    @DeleteMapping("/session")
    LoggedOut logOut(HttpServletRequest request) {
        var session = request.getSession(false);
        var signedOn = session == null ? null : session.getAttribute(SignedOn.IN_SESSION);
        if (session != null) session.invalidate();
        SecurityContextHolder.clearContext();
        return new LoggedOut(signedOn instanceof SignedOn kept ? signOns.logOutAddress(kept) : null);
    }

    @PostMapping("/tokens")
    @ResponseStatus(HttpStatus.CREATED)
    AccessTokens.IssuedToken issueToken(@Valid @RequestBody LogInBody credentials, HttpServletRequest request) {
        String name = credentials.name();
        var person = authenticate(credentials, request, AuditAct.GET_TOKEN);
        return tokens.issue(person, name == null ? "command line" : name);
    }

    @DeleteMapping("/tokens/current")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void revokeToken(HttpServletRequest request) {
        if (BearerTokenFilter.hasBearerToken(request)) tokens.revoke(BearerTokenFilter.tokenOf(request));
    }

    private Person authenticate(LogInBody credentials, HttpServletRequest request, AuditAct act) {
        String from = request.getRemoteAddr();
        return gate.guess(
                        credentials.login(),
                        from,
                        devices.known(credentials.login(), request),
                        () -> people.authenticate(credentials.login(), credentials.password())
                                .filter(policy::allowsPassword))
                .map(person -> {
                    logIns.succeeded(person, from, act);
                    return person;
                })
                .orElseThrow(() -> {
                    logIns.failed(credentials.login(), from);
                    return RefusedException.unauthorised("The log-in name or the password is wrong.");
                });
    }
}
