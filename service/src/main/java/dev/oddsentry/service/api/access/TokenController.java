package dev.oddsentry.service.api.access;

import dev.oddsentry.service.access.AccessTokens;
import dev.oddsentry.service.access.TokenScope;
import dev.oddsentry.service.people.People;
import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.people.Role;
import dev.oddsentry.service.web.RefusedException;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Tokens of users, under names of their own. */
@RestController
@RequestMapping(path = "/api/tokens", produces = "application/json")
class TokenController {
    private final AccessTokens tokens;
    private final People people;

    TokenController(AccessTokens tokens, People people) {
        this.tokens = tokens;
        this.people = people;
    }

    @GetMapping
    List<AccessTokens.TokenView> listTokens(
            @AuthenticationPrincipal Person by, @RequestParam(defaultValue = "false") boolean everybody) {
        if (!everybody) return tokens.of(by);
        if (!by.is(Role.OPERATOR) && !by.is(Role.AUDITOR))
            throw RefusedException.forbidden("The tokens of all users are for operators and auditors.");
        return tokens.all();
    }

    /** @param name what it is for, as the list of tokens shows it */
    record TokenBody(
            @NotBlank @Size(max = 200) String name,
            @NotNull TokenScope scope,
            @Min(1) @Max(366) int days) {}

    @PostMapping("/named")
    @ResponseStatus(HttpStatus.CREATED)
    AccessTokens.IssuedToken createToken(@AuthenticationPrincipal Person by, @Valid @RequestBody TokenBody body) {
        return tokens.create(by, by, body.name(), body.scope(), Duration.ofDays(body.days()));
    }

    /** People make their own. */
    @PostMapping("/of/{login}")
    @ResponseStatus(HttpStatus.CREATED)
    AccessTokens.IssuedToken createServiceToken(
            @AuthenticationPrincipal Person by, @PathVariable String login, @Valid @RequestBody TokenBody body) {
        var owner = people.active(people.require(login).id()).filter(people::isService);
        return tokens.create(
                by,
                owner.orElseThrow(() -> RefusedException.invalid(
                        "\"" + login + "\" is not a service account in use. People create their tokens themselves.")),
                body.name(),
                body.scope(),
                Duration.ofDays(body.days()));
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void revokeTokenById(@AuthenticationPrincipal Person by, @PathVariable UUID id) {
        if (!tokens.revoke(by, id)) throw RefusedException.notFound("There is no such token of yours.");
    }
}
