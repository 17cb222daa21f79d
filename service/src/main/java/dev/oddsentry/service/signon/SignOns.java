package dev.oddsentry.service.signon;

import dev.oddsentry.service.people.Person;
import dev.oddsentry.service.secrets.Hashes;
import dev.oddsentry.service.secrets.RandomText;
import dev.oddsentry.service.signon.SignOnAttempts.Attempt;
import dev.oddsentry.service.web.RefusedException;
import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Objects;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.oauth2.client.authentication.OAuth2LoginAuthenticationToken;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.core.OAuth2AuthenticationException;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationRequest;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationResponse;
import org.springframework.security.oauth2.core.endpoint.OAuth2ParameterNames;
import org.springframework.security.oauth2.core.endpoint.PkceParameterNames;
import org.springframework.security.oauth2.core.oidc.endpoint.OidcParameterNames;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClientException;
import org.springframework.web.util.UriComponentsBuilder;

/** Sends browsers to a provider, and logs in who comes back: OpenID Connect, authorization code with PKCE (RFC 7636). */
@Component
public class SignOns {
    private static final int LONGEST_TARGET = 2_000;
    /** What no address has unencoded (RFC 3986), and brackets, which have their place in hosts alone. */
    private static final Pattern UNFIT = Pattern.compile("[^A-Za-z0-9._~:/?#@!$&'()*+,;=%-]+");

    private final IdentityProviders providers;
    private final Registrations registrations;
    private final SignOnAttempts attempts;
    private final ProviderTokens tokens;
    private final Arrivals arrivals;

    SignOns(
            IdentityProviders providers,
            Registrations registrations,
            SignOnAttempts attempts,
            ProviderTokens tokens,
            Arrivals arrivals) {
        this.providers = providers;
        this.registrations = registrations;
        this.attempts = attempts;
        this.tokens = tokens;
        this.arrivals = arrivals;
    }

    /**
     * @param address of the provider
     * @param browser what the browser shows when it comes back
     */
    public record Departure(URI address, String browser) {}

    /**
     * @param signedOn kept in the session
     * @param returnTo a page of the console
     * @param confirmable whether the provider can be asked later whether the person is still there
     */
    public record Arrival(Person person, SignedOn signedOn, String returnTo, boolean confirmable) {}

    /**
     * @param returnTo the page that was open; anything else than a page of this service becomes the first one
     * @param browser what the browser was given before; null if nothing
     * @throws SignOnException if there is no such provider or it cannot be reached
     */
    public Departure begin(String provider, String returnTo, @Nullable String browser) {
        var to = active(provider);
        var registration = registration(to);
        String shown = browser == null ? RandomText.make() : browser;
        var attempt = new Attempt(RandomText.make(), RandomText.make(), RandomText.make(), local(returnTo));
        attempts.keep(to, attempt, shown);
        var request = request(registration, attempt);
        return new Departure(URI.create(request.getAuthorizationRequestUri()), shown);
    }

    /**
     * @param said the parameters that the provider gave the browser
     * @param browser what the browser shows; null if nothing
     * @throws SignOnException if it is not logged in
     */
    public Arrival finish(String provider, Map<String, String> said, @Nullable String browser) {
        var from = active(provider);
        var registration = registration(from);
        String state = said.get(OAuth2ParameterNames.STATE);
        if (state == null || browser == null)
            throw new SignOnException(SignOnRefusal.EXPIRED, "came without state or cookie");
        var returned = attempts.take(from, state, browser)
                .orElseThrow(() -> new SignOnException(SignOnRefusal.EXPIRED, "unknown, used or old state"));
        refuseOtherIssuer(from, said.get("iss"));
        var response = response(registration, state, said);
        var login = login(registration, request(registration, returned), response);
        var user = (OidcUser) Objects.requireNonNull(login.getPrincipal());
        var refreshToken = login.getRefreshToken();
        String refresh = refreshToken == null ? null : refreshToken.getTokenValue();
        var person = arrive(from, user, refresh);
        var signedOn = new SignedOn(from.id(), user.getIdToken().getTokenValue());
        return new Arrival(person, signedOn, returned.returnTo(), refresh != null);
    }

    private Person arrive(IdentityProvider from, OidcUser user, @Nullable String refreshToken) {
        try {
            return arrivals.arrive(from, user, refreshToken);
        } catch (SignOnException refused) {
            if (refused.refusal() == SignOnRefusal.NO_GROUP) arrivals.endLogIns(from, user);
            throw refused;
        }
    }

    private static OAuth2AuthorizationRequest request(ClientRegistration of, Attempt attempt) {
        return OAuth2AuthorizationRequest.authorizationCode()
                .authorizationUri(Objects.requireNonNull(of.getProviderDetails().getAuthorizationUri()))
                .clientId(of.getClientId())
                .redirectUri(of.getRedirectUri())
                .scopes(of.getScopes())
                .state(attempt.state())
                .attributes(attributes -> {
                    attributes.put(OAuth2ParameterNames.REGISTRATION_ID, of.getRegistrationId());
                    attributes.put(OidcParameterNames.NONCE, attempt.nonce());
                    attributes.put(PkceParameterNames.CODE_VERIFIER, attempt.verifier());
                })
                .additionalParameters(parameters -> {
                    parameters.put(OidcParameterNames.NONCE, Hashes.text(attempt.nonce()));
                    parameters.put(PkceParameterNames.CODE_CHALLENGE, Hashes.text(attempt.verifier()));
                    parameters.put(PkceParameterNames.CODE_CHALLENGE_METHOD, "S256");
                })
                .build();
    }

    private static OAuth2AuthorizationResponse response(ClientRegistration of, String state, Map<String, String> said) {
        String error = said.get(OAuth2ParameterNames.ERROR);
        if (error != null)
            throw new SignOnException(
                    SignOnRefusal.BY_PROVIDER,
                    error + " " + said.getOrDefault(OAuth2ParameterNames.ERROR_DESCRIPTION, ""));
        String code = said.get(OAuth2ParameterNames.CODE);
        if (code == null) throw new SignOnException(SignOnRefusal.BY_PROVIDER, "came without a code");
        return OAuth2AuthorizationResponse.success(code)
                .redirectUri(Objects.requireNonNull(of.getRedirectUri()))
                .state(state)
                .build();
    }

    /** RFC 9207: a provider that says who it is must be the one that was asked. */
    private static void refuseOtherIssuer(IdentityProvider from, @Nullable String issuer) {
        if (issuer != null && !issuer.equals(from.details().issuer()))
            throw new SignOnException(SignOnRefusal.UNTRUSTED, "another issuer answered");
    }

    private OAuth2LoginAuthenticationToken login(
            ClientRegistration of, OAuth2AuthorizationRequest request, OAuth2AuthorizationResponse response) {
        try {
            return tokens.fetch(of, request, response);
        } catch (OAuth2AuthenticationException refused) {
            throw refusal(refused);
        } catch (AuthenticationException | RestClientException | IllegalArgumentException failed) {
            throw new SignOnException(SignOnRefusal.UNREACHABLE, words(failed), failed);
        }
    }

    private static SignOnException refusal(OAuth2AuthenticationException refused) {
        var error = refused.getError();
        boolean untrusted = error.getErrorCode().equals("invalid_id_token")
                || error.getErrorCode().equals("invalid_nonce")
                || error.getErrorCode().equals("invalid_user_info_response");
        for (Throwable cause = refused; cause != null; cause = cause.getCause())
            if (cause instanceof IOException)
                return new SignOnException(SignOnRefusal.UNREACHABLE, words(refused), refused);
        return new SignOnException(
                untrusted ? SignOnRefusal.UNTRUSTED : SignOnRefusal.BY_PROVIDER,
                error.getErrorCode() + " " + Objects.requireNonNullElse(error.getDescription(), ""),
                refused);
    }

    private static String words(Exception failed) {
        return Objects.requireNonNullElse(failed.getMessage(), failed.getClass().getSimpleName());
    }

    /**
     * Where the browser goes to log out at the provider too (OpenID Connect RP-Initiated Logout 1.0), and comes back from; null where the provider has no such place,
     * or does not answer now.
     */
    public @Nullable URI logOutAddress(SignedOn signedOn) {
        var provider = providers.find(signedOn.provider());
        if (provider.isEmpty()) return null;
        try {
            var registration = registrations.of(provider.get());
            var said = registration.getProviderDetails().getConfigurationMetadata();
            if (!(said.get("end_session_endpoint") instanceof String there)) return null;
            return UriComponentsBuilder.fromUriString(there)
                    .queryParam("id_token_hint", "{token}")
                    .queryParam("client_id", "{client}")
                    .queryParam("post_logout_redirect_uri", "{back}")
                    .encode()
                    .buildAndExpand(signedOn.idToken(), registration.getClientId(), registrations.logInPage())
                    .toUri();
        } catch (RefusedException notNow) {
            return null;
        }
    }

    private IdentityProvider active(String name) {
        return providers.all().stream()
                .filter(each -> each.name().equals(name) && each.details().active())
                .findFirst()
                .orElseThrow(() -> new SignOnException(SignOnRefusal.OFF, "no such provider"));
    }

    private ClientRegistration registration(IdentityProvider of) {
        try {
            return registrations.of(of);
        } catch (RefusedException failed) {
            throw new SignOnException(SignOnRefusal.UNREACHABLE, words(failed), failed);
        }
    }

    /** A link that somebody was sent must not lead to another site after the log-in. */
    private static String local(String target) {
        boolean safe = target.length() <= LONGEST_TARGET && target.matches("/(?![/\\\\])[^\\p{Cntrl}\\\\]*");
        return safe ? encoded(target) : "/";
    }

    /** Browsers leave characters in addresses that an address, strictly, cannot have. */
    private static String encoded(String target) {
        var all = UNFIT.matcher(target)
                .replaceAll(found ->
                        URLEncoder.encode(found.group(), StandardCharsets.UTF_8).replace("+", "%20"));
        try {
            return new URI(all).toString();
        } catch (URISyntaxException notOne) {
            return "/";
        }
    }
}
